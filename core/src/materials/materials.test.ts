import fc from 'fast-check';
import { expect, it } from 'vitest';
import { MATERIALS, readMaterials, writeMaterials } from './index.js';

it('every material of the library has eight shares of each kind, an id of its own, and a source', () => {
  expect(new Set(MATERIALS.map((m) => m.id)).size).toBe(MATERIALS.length);
  for (const { absorption, scattering, source } of MATERIALS) {
    for (const shares of [absorption, scattering]) {
      expect(shares).toHaveLength(8);
      for (const s of shares) expect(s >= 0 && s <= 1).toBe(true);
    }
    expect(source).not.toBe('');
  }
});

it('what is written is read again, whatever it is called', () => {
  const name = fc
    .string({ minLength: 1, maxLength: 60 })
    .map((s) => s.trim())
    .filter((s) => s !== '' && !s.endsWith(' scattering'));
  const shares = fc.array(
    fc.integer({ min: 0, max: 100 }).map((n) => n / 100),
    { minLength: 8, maxLength: 8 },
  );
  const material = fc.record({ name, absorption: shares, scattering: fc.option(shares) });
  fc.assert(
    fc.property(fc.uniqueArray(material, { selector: (m) => m.name, minLength: 1, maxLength: 8 }), (some) => {
      expect(readMaterials(writeMaterials(some))).toEqual(some);
    }),
    { numRuns: 200 },
  );
});

it('a table from elsewhere: six octaves, decimal commas, no heading', () => {
  expect(readMaterials('Rubber;0,04;0,04;0,08;0,12;0,03;0,1')).toEqual([
    { name: 'Rubber', absorption: [0.04, 0.04, 0.04, 0.08, 0.12, 0.03, 0.1, 0.1], scattering: null },
  ]);
  // above 1 as reverberation rooms give it
  expect(readMaterials('Wool, 0.5,0.9,1.1,1.05,1,1')[0]!.absorption[3]).toBe(1);
});

it('what is no table is told with its line', () => {
  expect(() => readMaterials('')).toThrow(/no material/);
  expect(() => readMaterials('Rubber\t0.1\t0.2')).toThrow(/Line 1 has 2 coefficients/);
  expect(() => readMaterials('A\t0\t0\t0\t0\t0\t0\nB\t1\t2\t3\t4\t5\t6')).toThrow(/Line 2: "2" is no share/);
  expect(() => readMaterials('A\t0\t0\t0\tNaN\t0\t0')).toThrow(/NaN/);
  expect(() => readMaterials('x'.repeat(1_000_001))).toThrow(/1 MB/);
});
