import { variantOf, type Correction, filterPart } from '@pebble-hall/core/project';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../demo/netLoftProject';

const { correction } = variantOf(netLoftProject());
const part = (change: Partial<Correction>) => filterPart({ ...correction, ...change });

it('filters depend on target, strength, limits and form; not on levels, delays, crossovers or the guard', () => {
  const plain = part({});
  expect(part({ strength: 0.5 })).not.toEqual(plain);
  expect(part({ maxBoostDb: 3 })).not.toEqual(plain);
  expect(part({ filter: { ...correction.filter, style: 'linear' } })).not.toEqual(plain);
  for (const same of [
    { alignment: { left: { trimDb: -3, delayMs: 2, inverted: true } } },
    { crossovers: { left: { highPass: null, lowPass: null } } },
    { headroomGuard: 'off' as const },
    { lowChannel: { gainDb: 0, lowPass: null } },
  ] as Partial<Correction>[])
    expect(part(same), JSON.stringify(same)).toEqual(plain);
});
