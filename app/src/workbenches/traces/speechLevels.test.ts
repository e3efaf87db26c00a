import { expect, it } from 'vitest';
import { speechAndNoise } from './speechLevels';

it('sums the third octaves of each octave, at sound pressure level', () => {
  const bands = [100, 125.9, 158.5, 800, 1000, 1259].map((centre) => ({ centre, noiseDb: -80 }));
  const { speechDb, noiseDb } = speechAndNoise({ bands }, 65, 120);
  expect(noiseDb[0]).toBeCloseTo(40 + 4.77, 2); // three alike are 4.77 dB above one
  expect(noiseDb[3]).toBeCloseTo(44.77, 2);
  expect(noiseDb[6]).toBe(-100);
  // male speech of 65 dB(A): the 1 kHz octave lies 6.8 dB below it (IEC 60268-16:2011)
  expect(speechDb[3]).toBeCloseTo(58.2, 6);
});
