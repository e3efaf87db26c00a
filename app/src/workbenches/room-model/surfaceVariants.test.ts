import { MOST_SURFACE_VARIANTS } from '@pebble-hall/core/project';
import { withRoomSurface } from '@pebble-hall/core/place';
import { expect, it } from 'vitest';
import { netLoftProject } from '../../../../demo/netLoftProject';
import { variantNow, variantsOf, withKept } from './surfaceVariants';

const { place } = netLoftProject();
const made = (material: string) => withRoomSurface(place, 'floor', (face) => ({ ...face, material }));

it('surfaces are kept once, each under a name of its own, and known again', () => {
  expect(variantNow(place)).toBeNull();
  const once = withKept(place, 'Surfaces 1');
  expect(variantNow(once)?.name).toBe('Surfaces 1');
  expect(withKept(once, 'Surfaces 1')).toBe(once);
  const changed = { ...made('Carpet'), surfaceVariants: [...variantsOf(once)] };
  expect(variantNow(changed)).toBeNull();
  expect(variantsOf(withKept(changed, 'Surfaces 1')).map((v) => v.name)).toEqual([
    'Surfaces 1',
    'Surfaces 2',
  ]);
});

it('no more are kept than a project file takes', () => {
  let full = place;
  for (let i = 0; i < MOST_SURFACE_VARIANTS; i++)
    full = withKept({ ...made(`No. ${i}`), surfaceVariants: [...variantsOf(full)] }, 'Surfaces 1');
  const more = { ...made('one more'), surfaceVariants: [...variantsOf(full)] };
  expect(() => withKept(more, 'Surfaces 1')).toThrow(/Remove one first/);
});
