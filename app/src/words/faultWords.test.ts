import { expect, it } from 'vitest';
import { faultSentence } from './faultWords';

const at = { x: -3.2, y: 0.04, z: 1 };

it('says what is wrong, where, in lengths that one can find with a rule, and what to do', () => {
  const say = (fault: Parameters<typeof faultSentence>[0], unit: 'm' | 'ft' = 'm') =>
    faultSentence(fault, ['Floor', 'Stage'], unit);
  expect(say({ kind: 'in a wall', what: 'Seat 3', face: 1, byM: 0.0004, at })).toBe(
    'Seat 3 is only 0.4 mm off Stage. Move it off the wall.',
  );
  expect(say({ kind: 'warped', face: 0, byM: 0.25, at }, 'ft')).toContain('up to 0.8 ft off its plane');
  expect(say({ kind: 'warped', face: 0, byM: 0.05, at }, 'ft')).toContain('up to 2.0 in off its plane');
  expect(say({ kind: 'leak', share: 0.0123, at })).toMatch(
    /^1\.2 % .* near x -3\.20 m, y 0\.04 m, z 1\.00 m\./,
  );
  expect(say({ kind: 'overlapping', face: 1, other: 0, share: 0.31, at })).toMatch(
    /^Stage lies on Floor over about 31 % of it: .* lay it 1 cm off\.$/,
  );
  expect(say({ kind: 'tiny', face: 5, area: 0, at })).toMatch(/^face 6 is too small/);
});
