import { describe, expect, it } from 'vitest';
import { Straightened } from './straightened';

type Corner = ['move' | 'line', number, number];

function drawn(points: [number, number][][], joins = false): Corner[] {
  const corners: Corner[] = [];
  const line = new Straightened(
    { moveTo: (x, y) => corners.push(['move', x, y]), lineTo: (x, y) => corners.push(['line', x, y]) },
    joins,
  );
  for (const run of points) {
    for (const [x, y] of run) line.to(x, y);
    line.end();
  }
  return corners;
}

/** How high a drawn line is at a place. */
function heightAt(corners: Corner[], x: number): number {
  const i = corners.findIndex(
    ([, to], k) => k > 0 && Math.min(to, corners[k - 1]![1]) <= x && x <= Math.max(to, corners[k - 1]![1]),
  );
  const [[, x0, y0], [, x1, y1]] = [corners[i - 1]!, corners[i]!];
  return y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
}

describe('a line with as few corners as can be', () => {
  it('needs two for points on a straight line', () => {
    const straight = Array.from({ length: 50 }, (_, i): [number, number] => [i * 1.7, 3 + 0.4 * i]);
    const corners = drawn([straight]);
    expect(corners).toHaveLength(2);
    expect(corners[1]![1]).toBeCloseTo(49 * 1.7, 9);
  });

  it('passes every point that it leaves out nearer than one can see, whichever way it runs', () => {
    const curve = Array.from({ length: 480 }, (_, i): [number, number] => [
      i * 1.6,
      200 + 80 * Math.sin(i / 40) + 3 * Math.sin(i / 9),
    ]);
    for (const way of [curve, curve.toReversed()]) {
      const corners = drawn([way]);
      expect(corners.length).toBeLessThan(0.4 * curve.length);
      for (const [x, y] of way) expect(Math.abs(heightAt(corners, x) - y)).toBeLessThan(0.3);
      expect(corners.at(-1)!.slice(1)).toEqual(way.at(-1));
    }
  });

  it('keeps a spike of one point, and gaps', () => {
    const spike: [number, number][] = [
      [0, 0],
      [1, 0],
      [2, -40],
      [3, 0],
      [4, 0],
    ];
    expect(drawn([spike]).map(([, x]) => x)).toEqual([0, 1, 2, 3, 4]);
    expect(
      drawn([
        [[0, 0]],
        [
          [5, 1],
          [6, 1],
        ],
      ]),
    ).toEqual([
      ['move', 0, 0],
      ['move', 5, 1],
      ['line', 6, 1],
    ]);
  });

  it('goes on from what was drawn before where it is asked to', () => {
    expect(
      drawn(
        [
          [
            [4, 1],
            [3, 1],
          ],
        ],
        true,
      ),
    ).toEqual([
      ['line', 4, 1],
      ['line', 3, 1],
    ]);
  });
});
