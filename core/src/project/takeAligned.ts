import type { SourceSetting } from '../alignment/index.js';
import { allPassAsSection, type AllPassSection } from '../path/index.js';
import type { ProcessorLimits } from '../processing/index.js';
import { isFromModels, leavesOf, settingOf, type AlignStep } from './align.js';
import type { Alignment, Correction, Crossovers } from './correction.js';
import { fittedOf } from './progress.js';
import { inDeviceSteps } from './steps.js';
import type { Project } from './types.js';

/** What steps are read with. */
export type StepsOnly = Pick<Project, 'place' | 'alignSteps'>;

const PLAIN: Alignment = { trimDb: 0, delayMs: 0, inverted: false };

/**
 * How every channel of a step is set by it and by the steps that it rests on.
 * @returns by loudspeaker id; null where a source is no channel of this place
 */
export function channelSettings(
  steps: readonly AlignStep[],
  step: AlignStep,
): Map<string, SourceSetting> | null {
  const found = new Map<string, SourceSetting>();
  for (const source of step.sources) {
    const { of } = source;
    if (of.kind === 'channels') for (const id of of.loudspeakerIds) found.set(id, settingOf(source));
    else if (of.kind === 'step') {
      const below = steps.find((s) => s.id === of.stepId);
      const inner = below && channelSettings(steps, below);
      if (!inner) return null;
      for (const [id, own] of inner) found.set(id, inARow(own, source));
    } else return null;
  }
  return found;
}

const inARow = (one: SourceSetting, other: SourceSetting): SourceSetting => ({
  gainDb: one.gainDb + other.gainDb,
  delayS: one.delayS + other.delayS,
  inverted: one.inverted !== other.inverted,
  allPasses: [...one.allPasses, ...other.allPasses],
  // a group has none of its own
  highPass: one.highPass,
  lowPass: one.lowPass,
});

/** The all-passes of a processor that it can be asked for; none where it knows no such section. */
export const allPassesOffered = (
  allPasses: readonly AllPassSection[],
  { sectionKinds }: Pick<ProcessorLimits, 'sectionKinds'>,
): AllPassSection[] => allPasses.filter((s) => sectionKinds.includes(allPassAsSection(s).kind));

/**
 * A correction with the trims, delays, polarities, crossovers and all-passes of a step, as far as the processor knows such sections. Its time reference stays as it is there, and the others are set
 * against it; where one would have to come earlier than it can, all channels of the place wait.
 * @returns null where a source is no channel of this place; `waitsMs` how much later all channels play than before
 */
export function takeAligned(
  project: Pick<Project, 'place' | 'alignSteps'>,
  correction: Correction,
  step: AlignStep,
  offers: Pick<ProcessorLimits, 'sectionKinds'>,
): { correction: Correction; waitsMs: number } | null {
  const settings = channelSettings(project.alignSteps, step);
  const reference = step.sources.find((s) => s.id === step.referenceId)!;
  const still = settings && channelSettings(project.alignSteps, { ...step, sources: [reference] });
  const [stillId] = still ? [...still.keys()] : [];
  if (!settings || !still || stillId === undefined) return null;
  const base = correction.alignment[stillId] ?? PLAIN;
  const at = settings.get(stillId)!;
  const next = Object.fromEntries(
    fittedOf(project).map((l): [string, Alignment] => [l.id, correction.alignment[l.id] ?? PLAIN]),
  );
  for (const [id, s] of settings)
    next[id] = {
      trimDb: base.trimDb + s.gainDb - at.gainDb,
      delayMs: base.delayMs + 1000 * (s.delayS - at.delayS),
      inverted: (base.inverted !== at.inverted) !== s.inverted,
    };
  const waitsMs = Math.max(0, ...Object.values(next).map((a) => -a.delayMs));
  return {
    correction: {
      ...correction,
      alignment: inDeviceSteps(next),
      crossovers: { ...correction.crossovers, ...crossoversOf(project, correction, step) },
      allPasses: withTurns(correction.allPasses, settings, still, offers),
      madeFrom: { ...correction.madeFrom, levels: null },
    },
    waitsMs,
  };
}

/** All-passes by channel, those of a step in place of what its channels had; a reference that sets none stays as it is. */
function withTurns(
  before: Correction['allPasses'],
  settings: ReadonlyMap<string, SourceSetting>,
  still: ReadonlyMap<string, SourceSetting>,
  offers: Pick<ProcessorLimits, 'sectionKinds'>,
): Correction['allPasses'] {
  const all = { ...before };
  for (const [id, { allPasses }] of settings) {
    if (still.has(id) && allPasses.length === 0) continue;
    const offered = allPassesOffered(allPasses, offers);
    if (offered.length > 0) all[id] = offered;
    else delete all[id];
  }
  return all;
}

/**
 * Crossovers that a step sets: of what its models tell, which were told without any. What was swept was swept with those of its
 * memory, and keeps them.
 */
function crossoversOf(
  { place, alignSteps }: Pick<Project, 'place' | 'alignSteps'>,
  { crossovers }: Correction,
  step: AlignStep,
): Record<string, Crossovers> {
  const leaves = step.sources.flatMap((s) => leavesOf(alignSteps, s)).filter(isFromModels);
  const found: Record<string, Crossovers> = {};
  for (const { of, highPass, lowPass } of leaves)
    for (const id of of.kind === 'channels' ? of.loudspeakerIds : []) {
      const was = crossovers[id];
      const isSub = place.loudspeakers.find((l) => l.id === id)?.role === 'subwoofer';
      if (!was && !highPass && !(isSub && lowPass)) continue;
      // that of a full-range channel is of its bass on the way to the subwoofers
      found[id] = { highPass, lowPass: isSub ? lowPass : (was?.lowPass ?? null) };
    }
  return found;
}
