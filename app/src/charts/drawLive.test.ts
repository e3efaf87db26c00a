import { expect, it } from 'vitest';
import type { PlotView } from './chartMath';
import { drawLive } from './drawLive';

const view: PlotView = { fromHz: 10, toHz: 1000, lowDb: 0, highDb: 10, x: 0, y: 0, width: 200, height: 100 };
const frequency = Float64Array.of(10, 100, 1000);

/** What a canvas is asked to draw: lines from where to where, and how strongly. */
function drawn(values: number[], sure: number[] | null, jump?: number) {
  const lines: { from: [number, number]; to: [number, number]; alpha: number }[] = [];
  let at: [number, number] = [0, 0];
  const context = {
    globalAlpha: 1,
    moveTo: (x: number, y: number) => (at = [x, y]),
    lineTo(x: number, y: number) {
      lines.push({ from: at, to: [x, y], alpha: this.globalAlpha });
      at = [x, y];
    },
    ...Object.fromEntries(
      ['save', 'restore', 'beginPath', 'rect', 'clip', 'stroke', 'setLineDash'].map((name) => [
        name,
        () => {},
      ]),
    ),
  };
  drawLive(
    context as unknown as CanvasRenderingContext2D,
    view,
    frequency,
    [{ colour: 'ink', values: Float64Array.from(values), sure: sure && Float64Array.from(sure), width: 1 }],
    (name) => name,
    jump,
  );
  return lines;
}

it('draws a curve over log frequency, from the top of the plot down', () => {
  expect(drawn([10, 5, 0], null)).toEqual([
    { from: [0, 0], to: [100, 50], alpha: 1 },
    { from: [100, 50], to: [200, 100], alpha: 1 },
  ]);
});

it('fades where it is less sure: each part as sure as its less sure end', () => {
  expect(drawn([5, 5, 5], [1, 0.7, 0.2]).map((l) => l.alpha)).toEqual([0.55, 0.1]);
});

it('leaves out what is not known, and where a phase begins anew', () => {
  expect(drawn([5, NaN, 5], null)).toEqual([]);
  expect(drawn([0, 9, 8], null, 5)).toHaveLength(1);
});
