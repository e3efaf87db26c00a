import { expect, it } from 'vitest';
import { comparePublished, mirrorApart, type FoundShape, type Shape } from './index.js';

const tolerance = { hzPercent: 10, gainDb: 1, qPercent: 20 };
const found = (shape: Shape, errors: Partial<FoundShape['errors']> = {}): FoundShape => ({
  shape,
  errors: { hz: 0.001, gainDb: 0.01, q: 0.002, ...errors },
  nextBest: null,
});

it('a figure is inside, outside, or not sure where its errors reach over the edge', () => {
  const peak: Shape = { kind: 'peaking', hz: 1080, gainDb: 13.2, q: 1.5 };
  const rows = comparePublished(
    found(peak, { gainDb: 0.2 }),
    { hz: 1000, gainDb: 12, q: 1, order: null },
    tolerance,
  );
  const of = (figure: string) => rows.find((r) => r.figure === figure)!;
  expect(of('frequency')).toMatchObject({ verdict: 'inside', published: 1000 });
  expect(of('frequency').difference).toBeCloseTo(8, 10);
  expect(of('frequency').within).toBeCloseTo(2.16, 10);
  expect(of('gain').verdict).toBe('not sure');
  expect(of('q').verdict).toBe('outside');
  // a q of 1.5 is 0.94 octaves, of 1 it is 1.39
  expect(of('bandwidth').found).toBeCloseTo(0.9448, 3);
  expect(of('bandwidth').published).toBeCloseTo(1.3885, 3);
});

it('what is not published has no verdict, what is not known is not sure, and an order is one or it is not', () => {
  const rows = comparePublished(
    found({ kind: 'high-pass', hz: 80, family: 'Butterworth', order: 3 }, { hz: null }),
    { hz: 80, gainDb: null, q: null, order: 2 },
    tolerance,
  );
  expect(rows.map((r) => [r.figure, r.verdict])).toEqual([
    ['frequency', 'not sure'],
    ['order', 'outside'],
  ]);
  const [frequency] = comparePublished(
    found({ kind: 'low shelf', hz: 80, gainDb: 5, order: 1, q: null }),
    { hz: null, gainDb: null, q: null, order: null },
    tolerance,
  );
  expect(frequency!.verdict).toBeNull();
});

it('a boost and a cut of the same figures are mirror images; of another q they are not', () => {
  const boost: Shape = { kind: 'peaking', hz: 500, gainDb: 12, q: 2 };
  expect(Math.abs(mirrorApart([boost], [{ ...boost, gainDb: -12 }]).db)).toBeLessThan(1e-9);
  const narrow = mirrorApart([boost], [{ ...boost, gainDb: -12, q: 4 }]);
  expect(narrow.db).toBeGreaterThan(1);
  expect(Math.abs(Math.log2(narrow.hz / 500))).toBeGreaterThan(0.1);
});
