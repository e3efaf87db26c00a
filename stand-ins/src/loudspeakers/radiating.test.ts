import { beamwidthDeg, directivityIndexDb, radiationLayer } from '@pebble-hall/core/directivity';
import { THIRDS } from '@pebble-hall/core/coverage';
import { expect, it } from 'vitest';
import { MODELS, RADIATING, radiatingOf } from './index.js';

/** `npm run bars` takes all thirds. */
const EVERY = process.env['PEBBLE_HALL_DRAWS'] === 'all' ? 1 : 9;
const at = (name: string, f: number) => radiationLayer(radiatingOf(name, 'full range').radiation, f, 343);

it('every model that plays radiates, in every third of an octave, and loses nothing on its axis', () => {
  expect(RADIATING.map((m) => m.name).sort()).toEqual(MODELS.map((m) => m.model.name).sort());
  expect(RADIATING.length).toBeGreaterThanOrEqual(8);
  for (const { radiation } of RADIATING)
    for (const f of THIRDS.filter((_, i) => i % EVERY === 0)) {
      const layer = radiationLayer(radiation, f, 343);
      expect(layer.re[0]).toBeCloseTo(1, 5);
      expect(layer.im[0]).toBeCloseTo(0, 5);
      expect(layer.re.every(Number.isFinite)).toBe(true);
    }
});

it('ways that meet on the axis are together there: neither cancels the other', () => {
  // each way by itself is 6 dB down where they meet, and their phases are alike, so that they add up to nothing lost
  for (const { name, radiation } of RADIATING)
    for (const { filters } of radiation.kind === 'ways' ? radiation.ways : [])
      for (const { frequency } of filters) {
        const layer = radiationLayer(radiation, frequency, 343);
        // a wide beam at the crossing would mean that the axis is quieter than what lies beside it
        const most = Math.max(...Array.from(layer.re, (re, i) => re * re + layer.im[i]! ** 2));
        expect(10 * Math.log10(most), `${name} at ${frequency} Hz`).toBeLessThan(1.5);
      }
});

it('subwoofers radiate all round, horns ahead, columns flat, line elements flat and wide', () => {
  expect(directivityIndexDb(at('Cormorant 18', 50))).toBeLessThan(1);
  expect(beamwidthDeg(at('Tern 12', 8000), 'horizontal')).toBeLessThan(90);
  expect(beamwidthDeg(at('Redshank 8', 2000), 'vertical')).toBeLessThan(20);
  expect(beamwidthDeg(at('Redshank 8', 2000), 'horizontal')).toBeGreaterThan(120);
  expect(beamwidthDeg(at('Avocet 8', 8000), 'vertical')).toBeLessThan(15);
  expect(beamwidthDeg(at('Avocet 8', 8000), 'horizontal')).toBeGreaterThan(80);
});
