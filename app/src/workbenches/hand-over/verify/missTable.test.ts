import { expect, it } from 'vitest';
import { tsvOf } from '../../../services/tableText';
import { missTable, spotTable } from './missTable';
import type { Comparison } from './compareLoad';

const levels = Float64Array.of(0);
const base = {
  span: { from: 45, to: 16000 },
  foundDb: levels,
  predictedDb: levels,
  verifiedDb: levels,
  reasons: [],
};
const difference = {
  rmsDb: 0.031,
  worstDb: -0.214,
  worstAt: 71.84,
  noiseDb: 0.1,
  agrees: true,
  unjudged: 0,
  isJudged: true,
  octaves: 6.6,
  raiseDb: 0,
};
const list: Comparison[] = [
  { ...base, id: 'left', difference },
  {
    ...base,
    id: 'sub',
    difference: { ...difference, worstDb: 1.9, agrees: false },
    reasons: ['the level moved', 'another memory was active'],
  },
  { ...base, id: 'right', difference: null, verifiedDb: null },
];

it('takes differences along as numbers that a spreadsheet reads', () => {
  const lines = tsvOf(missTable('Verified', list, (id) => id.toUpperCase())).split('\n');
  expect(lines).toHaveLength(4);
  expect(lines[1]).toBe('LEFT\t45.0\t16000.0\t6.6 of 6.6\t0.03\t-0.21\t71.8\t0.10\tas predicted');
  expect(lines[2]).toMatch(/\+1\.90\t71\.8\t0\.10\tthe level moved; another memory was active$/);
  expect(lines[3]).toBe('RIGHT\t45.0\t16000.0\t\t\t\t\t\tnot measured again');
});

it('takes the verdicts of spots along', () => {
  const spot = {
    spotId: 's',
    name: 'Spot 2',
    measured: 7,
    worst: { id: 'sub', db: 0.8, at: 25.1 },
    agrees: false,
    unjudged: 0,
  };
  expect(spotTable('Spots', [spot], (id) => id).rows).toEqual([
    ['Spot 2', '7', '+0.80', 'sub', '25.1', 'look again'],
  ]);
});
