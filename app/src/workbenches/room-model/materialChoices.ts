import { MATERIALS, type Material } from '@pebble-hall/core/materials';
import type { OwnMaterial } from '@pebble-hall/core/project';

const KINDS: Record<Material['kind'], string> = {
  hard: 'Hard',
  'light walls': 'Light walls',
  floors: 'Floors',
  fabrics: 'Fabrics',
  'people and seats': 'People and seats',
  openings: 'Openings',
};
/** Of a surface that is made of no material. */
export const OWN_NUMBERS = '';

/** Materials as a list takes them, one's own first. */
export const materialChoices = (own: readonly OwnMaterial[]) => [
  { value: OWN_NUMBERS, label: 'its own numbers' },
  ...(own.length > 0
    ? [{ group: 'Our own', items: own.map(({ name }) => ({ value: name, label: name })) }]
    : []),
  ...Object.entries(KINDS).map(([kind, group]) => ({
    group,
    items: MATERIALS.filter((m) => m.kind === kind).map(({ name }) => ({ value: name, label: name })),
  })),
];

/** Whether a name is that of a material, one's own or of the library. */
export const isKnown = ({ materials }: { materials: readonly OwnMaterial[] }, name: string | null): boolean =>
  name !== null && [...materials, ...MATERIALS].some((m) => m.name === name);
