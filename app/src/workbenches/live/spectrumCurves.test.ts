import type { LiveFrame, SpectrumReading } from '@pebble-hall/core/live';
import { newLive } from '@pebble-hall/core/project';
import { octaveBands } from '@pebble-hall/core/signal';
import { expect, it } from 'vitest';
import { bandEdges, spectrumCurves, spectrumRange } from './spectrumCurves';
import type { LiveView } from './liveView';

const thirds = octaveBands(3, 20, 20_000);
const frequency = Float64Array.from(thirds, (b) => b.centre);
const levels = (db: number) => frequency.map(() => db);
const reading = (db: number): SpectrumReading => ({
  frequency,
  levelDb: levels(db),
  maxDb: levels(db + 9),
  minDb: levels(db - 9),
  l10Db: levels(db + 4),
  l50Db: levels(db),
  l90Db: levels(db - 4),
  fastDb: levels(db),
  overallDb: db + 15,
  heardS: 4,
});
const frame = { spectra: [{ input: 1, reading: reading(-60) }] } as unknown as LiveFrame;
const view = { hidden: [], overlays: [], lessNoise: false } as unknown as LiveView;
const shown = {
  live: newLive([], 2),
  view,
  selected: 'measurement-1',
  offsetDb: 100,
  noiseDb: null,
  target: null,
};

it('bands are drawn from edge to edge, as wide as they are', () => {
  const edges = bandEdges(frequency, 3);
  thirds.forEach((b, i) => {
    expect(edges[2 * i]).toBeCloseTo(b.from, 6);
    expect(edges[2 * i + 1]).toBeCloseTo(b.to, 6);
  });
  expect(bandEdges(frequency, 'narrow')).toBe(frequency);
});

it('levels are sound pressure levels once that is known, and what is asked for lies under them', () => {
  const points = 2 * frequency.length;
  const [only] = spectrumCurves(frame, shown, points);
  expect(only!.values).toHaveLength(points);
  expect(only!.values.every((v) => Math.abs(v - 40) < 1e-9)).toBe(true);
  const all = spectrumCurves(
    frame,
    { ...shown, view: { ...view, overlays: ['max', 'min', 'L10 to L90'] } },
    points,
  );
  expect(all.map((c) => Math.round(c.values[0]!))).toEqual([49, 31, 44, 36, 40]);
  // bands of another width, still on their way, are not drawn over these
  expect(spectrumCurves(frame, shown, 77)).toEqual([]);
});

it('less the noise, what the noise explains is not drawn as response', () => {
  const noiseDb = frequency.map((f) => (f < 100 ? -60.5 : -80));
  const less = spectrumCurves(
    frame,
    { ...shown, noiseDb, view: { ...view, lessNoise: true } },
    2 * frequency.length,
  );
  const corrected = less.at(-1)!.values;
  expect(corrected[0]).toBeNaN();
  expect(corrected.at(-1)).toBeCloseTo(40 + 10 * Math.log10(0.99), 6);
});

it('the axis holds what is drawn', () => {
  const { lowDb, highDb } = spectrumRange(spectrumCurves(frame, shown, 2 * frequency.length))!;
  expect(lowDb).toBeLessThan(40);
  expect(highDb).toBeGreaterThan(40);
  expect(highDb - lowDb).toBeGreaterThanOrEqual(40);
  expect(spectrumRange([])).toBeNull();
});
