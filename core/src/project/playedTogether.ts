import { leavesOf, type AlignStep } from './align.js';
import { channelSettings, type StepsOnly } from './takeAligned.js';
import type { PlayedPart } from './togetherOrigin.js';

/**
 * How the channels of a step play together in one go: none earlier than it can, and none louder than it was swept.
 * @returns `lowerDb` by which all were turned down for that; null where a source is none that was swept
 */
export function partsTogether(
  project: StepsOnly,
  step: AlignStep,
): { parts: PlayedPart[]; lowerDb: number } | null {
  const isSwept = step.sources
    .flatMap((s) => leavesOf(project.alignSteps, s))
    .every(({ of }) => of.kind === 'channels' && of.from === 'sweeps');
  const settings = isSwept ? channelSettings(project.alignSteps, step) : null;
  if (!settings) return null;
  const all = [...settings];
  const earliest = Math.min(...all.map(([, s]) => s.delayS));
  const lowerDb = Math.max(0, ...all.map(([, s]) => s.gainDb));
  const parts = all.flatMap(([loudspeakerId, as]): PlayedPart[] => {
    const name = project.place.loudspeakers.find((l) => l.id === loudspeakerId)?.name;
    if (name === undefined) return [];
    return [
      { loudspeakerId, name, as: { ...as, delayS: as.delayS - earliest, gainDb: as.gainDb - lowerDb } },
    ];
  });
  return parts.length === all.length && parts.length > 1 ? { parts, lowerDb } : null;
}
