import { logGrid } from '@pebble-hall/core/signal';
import { describe, expect, it } from 'vitest';
import type { ChartTrace } from './drawTraces';
import { DASH, PRINTED, savedResponse } from './savedResponse';

const grid = logGrid();
const trace = (role: ChartTrace['role'], colour: string, label: string = role): ChartTrace => ({
  id: label,
  label,
  role,
  colour,
  levels: grid.map(() => -3),
});
const view = { fromHz: 20, toHz: 20000, lowDb: -30, highDb: 10 };
const saved = (smoothing: string | null, traces: ChartTrace[], target: Float64Array | null = null) =>
  savedResponse('Left', smoothing, 'dB', view, grid, traces, target);

describe('a plot that is saved', () => {
  it('has the axes of the screen: octaves apart on a log axis, levels with a true minus', () => {
    const { x, y } = saved(null, []);
    expect(x).toMatchObject({ from: 20, to: 20000, log: true, label: 'Hz' });
    expect(x.ticks.find((t) => t.at === 1000)?.text).toBe('1k');
    expect(y).toMatchObject({ from: -30, to: 10, log: false, label: 'dB' });
    expect(y.ticks.find((t) => t.at === -10)?.text).toBe('−10');
    expect(y.ticks.every((t) => t.at >= -30 && t.at <= 10)).toBe(true);
  });

  it('says how it was smoothed, and nothing where it was not', () => {
    expect(saved('1/6 octave', []).subtitle).toMatch(/, smoothed 1\/6 octave$/);
    expect(saved(null, []).subtitle).not.toMatch(/smoothed/);
  });

  it('tells roles by the kind of line, in colours for white paper, the target beneath all', () => {
    const traces = [trace('measured', 'trace-kelp'), trace('predicted', 'trace-heather')];
    const target = grid.map(() => -5);
    const { lines } = saved(null, traces, target);
    expect(lines.map((l) => l.label)).toEqual(['target', 'measured', 'predicted']);
    expect(lines[0]!.y).toBe(target);
    expect(lines.slice(1).map((l) => l.dash)).toEqual(['', DASH.predicted]);
    expect(lines.slice(1).map((l) => l.colour)).toEqual([PRINTED['trace-kelp'], PRINTED['trace-heather']]);
    expect(lines[1]!.x).toBe(grid);
  });

  it('draws a colour that it does not know in ink', () => {
    expect(saved(null, [trace('noise', 'trace-unheard-of')]).lines[0]!.colour).toBe('#22292b');
  });

  it('prints every trace colour so that it reads on white: 3 to 1 at least', () => {
    const channel = (hex: string, i: number) => {
      const v = Number.parseInt(hex.slice(1 + 2 * i, 3 + 2 * i), 16) / 255;
      return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
    };
    const luminance = (hex: string) =>
      0.2126 * channel(hex, 0) + 0.7152 * channel(hex, 1) + 0.0722 * channel(hex, 2);
    for (const [name, hex] of Object.entries(PRINTED))
      expect(1.05 / (luminance(hex) + 0.05), name).toBeGreaterThan(3);
  });
});
