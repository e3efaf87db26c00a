import { newPlace, USUAL_SIZE } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { rulerFigures, rulerWords } from './ruler';

const place = newPlace({ name: 'H', kind: 'hall', size: USUAL_SIZE.hall, layoutId: 'none' });
const [a, b] = [
  { x: 1, y: 2, z: 1 },
  { x: 4, y: 6, z: 13 },
];

it('tells length, time of flight and loss', () => {
  const found = rulerFigures([a, b], 20)!; // 3, 4, 12
  expect(found.metres).toBe(13);
  expect(found.ms).toBeCloseTo(13000 / 343.2, 1);
  expect(found.lossDb).toBeCloseTo(22.279, 3);
  expect(rulerFigures([a], 20)).toBeNull();
});

it('reads it aloud in the unit of the place', () => {
  expect(rulerWords([a, b], place)).toMatch(/^13 m, 37\.8\d ms at 20 °C, 22\.3 dB less than at 1 m$/);
  expect(rulerWords([a, b], { ...place, lengthUnit: 'ft' })).toMatch(/^42\.65 ft/);
  expect(rulerWords([a, a], place)).toMatch(/^0 m, 0\.00 ms at 20 °C$/);
});
