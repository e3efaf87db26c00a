import { expect, it } from 'vitest';
import { plotSvg, SAVED_SIZE, type SavedPlot } from './plotSvg';

const plot: SavedPlot = {
  title: 'Left & right <as found>',
  subtitle: '1/6 octave, 23 Nov 2026',
  x: { from: 10, to: 1000, log: true, label: 'Hz', ticks: [{ at: 100, text: '100' }] },
  y: { from: -20, to: 20, log: false, label: 'dB', ticks: [{ at: 0, text: '0' }] },
  lines: [
    { label: 'Left', colour: '#123456', dash: '', x: [10, 100, 1000], y: [-20, 0, 20] },
    { label: 'Right', colour: '#654321', dash: '2 4', x: [10, 100, 1000], y: [0, NaN, 0] },
  ],
};
const svg = plotSvg(plot);

it('carries title, what one must know, legend and axes, and escapes what a name may hold', () => {
  for (const text of [
    'Left &amp; right &lt;as found&gt;',
    '1/6 octave, 23 Nov 2026',
    '>Left<',
    '>Right<',
    '>Hz<',
  ])
    expect(svg).toContain(text);
});

it('places points by their axes: the middle of a log axis is its geometric mean', () => {
  const [, path] = /<path d="([^"]+)" fill="none" stroke="#123456"/.exec(svg)!;
  const points = path!
    .split(/[ML]/)
    .slice(1)
    .map((p) => p.split(' ').map(Number));
  const [first, middle, last] = points as [[number, number], [number, number], [number, number]];
  expect(middle[0]).toBeCloseTo((first[0] + last[0]) / 2, 0);
  expect(middle[1]).toBeCloseTo((first[1] + last[1]) / 2, 0);
  expect(first[1]).toBeGreaterThan(last[1]); // up is louder
  expect(last[0]).toBeLessThan(SAVED_SIZE.width);
});

it('breaks a line where it is no number', () => {
  const [, path] = /<path d="([^"]+)" fill="none" stroke="#654321"/.exec(svg)!;
  expect(path!.match(/M/g)).toHaveLength(2);
  expect(path).not.toMatch(/NaN|L/);
});
