import { STARTING_FILTER, STARTING_GOAL, type Target } from '../correct/index.js';
import { familiesOf } from './families.js';
import type { Correction, Project, Variant } from './types.js';

/** What a correction is before anyone has touched it. */
export const STARTING_CORRECTION: Correction = {
  ...STARTING_GOAL,
  familyTargets: {},
  spans: {},
  targetLevels: {},
  filter: STARTING_FILTER,
  sections: {},
  alignment: {},
  subs: {},
  crossovers: {},
  allPasses: {},
  lowChannel: null,
  headroomGuard: 'programme',
  madeFrom: { subs: null, levels: null, crossover: null },
};

/** The variant that a project begins with. */
export const firstVariant = (): Variant => ({
  id: 'variant-1',
  name: 'First variant',
  note: '',
  madeAt: 0,
  correction: STARTING_CORRECTION,
  restsOn: null,
});

/** The variant that is worked on. */
export const variantOf = ({ variants, variantId }: Pick<Project, 'variants' | 'variantId'>): Variant =>
  variants.find((v) => v.id === variantId)!;

/** The project with its current variant's correction changed. */
export function withCorrection(project: Project, change: (correction: Correction) => Correction): Project {
  return {
    ...project,
    variants: project.variants.map((v) =>
      v.id === project.variantId ? { ...v, correction: change(v.correction) } : v,
    ),
  };
}

/** The target of a loudspeaker: its family's own, or the shared one. */
export function targetOf(
  project: Pick<Project, 'families' | 'place'>,
  correction: Correction,
  loudspeakerId: string,
): Target {
  const family = familiesOf(project).find((f) => f.loudspeakerIds.includes(loudspeakerId));
  return (family && correction.familyTargets[family.id]) ?? correction.target;
}

/** A name that no variant has yet: "Warmer", "Warmer 2", "Warmer 3". */
export function freeName(wanted: string, taken: string[]): string {
  if (!taken.includes(wanted)) return wanted;
  const stem = wanted.replace(/ \d+$/, '');
  for (let n = 2; ; n++) if (!taken.includes(`${stem} ${n}`)) return `${stem} ${n}`;
}
