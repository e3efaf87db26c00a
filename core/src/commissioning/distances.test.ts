import type { Point } from '../geometry/index.js';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../signal/index.js';
import { disagreements, fitPositions, impossibleTriangles, type Distance } from './distances.js';

const places: Record<string, Point> = {
  left: { x: 0.6, y: 0.8, z: 1.1 },
  right: { x: 0.6, y: 3.4, z: 1.1 },
  sub: { x: 0.3, y: 0.3, z: 0.3 },
  home: { x: 3.2, y: 2.0, z: 1.1 },
};
const between = (a: string, b: string, at = places) => {
  const [p, q] = [at[a]!, at[b]!];
  return Math.hypot(p.x - q.x, p.y - q.y, p.z - q.z);
};
const all = (at = places): Distance[] => {
  const names = Object.keys(at);
  return names.flatMap((a, i) => names.slice(i + 1).map((b) => ({ a, b, metres: between(a, b, at) })));
};

describe('impossible triangles', () => {
  it('are not found among true distances, nor within the tolerance', () => {
    expect(impossibleTriangles(all())).toEqual([]);
    const random = seededRandom(4);
    const shaky = all().map((d) => ({ ...d, metres: d.metres + 0.03 * (random.uniform() - 0.5) }));
    expect(impossibleTriangles(shaky)).toEqual([]);
  });
  it('name the side and the way round', () => {
    const wrong = all().map((d) => (d.a === 'left' && d.b === 'sub' ? { ...d, metres: 7.5 } : d));
    const found = impossibleTriangles(wrong);
    expect(found).toHaveLength(1);
    expect(found[0]).toMatchObject({ kind: 'triangle', a: 'left', b: 'sub', metres: 7.5 });
  });
});

it('typed and heard distances that differ are named, others not', () => {
  const heard = all().map((d) => ({ ...d, metres: d.metres + 0.02 }));
  expect(disagreements(all(), heard)).toEqual([]);
  const typed = [{ a: 'home', b: 'left', metres: 3.9 }];
  expect(disagreements(typed, all())).toMatchObject([
    { kind: 'disagree', metres: 3.9, others: between('left', 'home') },
  ]);
});

describe('fitting positions', () => {
  it('moves misplaced points to where their distances put them', () => {
    const plan = structuredClone(places);
    plan['left']!.x += 0.3;
    plan['right']!.y -= 0.25;
    const { points, rmsM } = fitPositions(plan, all(), ['home', 'sub']);
    expect(rmsM).toBeLessThan(0.005);
    expect(points['left']!.x).toBeCloseTo(0.6, 1);
    expect(points['right']!.y).toBeCloseTo(3.4, 1);
    expect(points['home']).toEqual(places['home']);
    expect(plan['left']!.x).toBeCloseTo(0.9, 9); // the input is not altered
  });
  it('leaves the plan alone without distances', () => {
    expect(fitPositions(places, [], []).points).toEqual(places);
  });
});
