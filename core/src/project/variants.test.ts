import { expect, it } from 'vitest';
import { firstVariant, freeName, targetOf, variantOf, withCorrection, type Project } from './index.js';

const loudspeaker = (id: string, model: string) =>
  ({ id, name: id, model }) as Project['place']['loudspeakers'][number];
const project = {
  variants: [firstVariant(), { ...firstVariant(), id: 'b', name: 'Warmer' }],
  variantId: 'b',
  families: null,
  place: { loudspeakers: [loudspeaker('l', 'Dunlin 6'), loudspeaker('s', 'Eider 10')] },
} as unknown as Project;

it('changes the current variant only', () => {
  const next = withCorrection(project, (c) => ({ ...c, strength: 0.5 }));
  expect(variantOf(next).correction.strength).toBe(0.5);
  expect(next.variants[0]).toBe(project.variants[0]);
});

it('a loudspeaker follows its family’s own target, or the shared one', () => {
  const { correction } = variantOf(project);
  const own = { ...correction.target, lowLiftDb: 4 };
  const changed = { ...correction, familyTargets: { 'family-2': own } };
  expect(targetOf(project, changed, 's')).toBe(own);
  expect(targetOf(project, changed, 'l')).toBe(correction.target);
});

it('names do not collide', () => {
  expect(freeName('Warmer', [])).toBe('Warmer');
  expect(freeName('Warmer', ['Warmer'])).toBe('Warmer 2');
  expect(freeName('Warmer 2', ['Warmer', 'Warmer 2'])).toBe('Warmer 3');
});
