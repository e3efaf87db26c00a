import type { Span, Target } from '@pebble-hall/core/correct';
import { targetOf, type Correction, type Family, type Project } from '@pebble-hall/core/project';
import { formatDb } from '../../charts/chartMath';
import type { Designs } from '../../services/exactFilters';
import type { Edit } from './useCorrection';

/** What the hand is on: a channel of a correction, and what was designed of all. */
export interface InHand {
  project: Project;
  correction: Correction;
  channel: { id: string; name: string };
  /** the family of the channel */
  family: Family | null;
  /** the channel whose span this one shares: the first of subwoofers that work together, else itself */
  spanId: string;
  designs: Designs;
}

/** What a hand can do to target and span of a channel, and what they are. */
export function correctionVerbs(
  { project, correction, channel, family, spanId, designs }: InHand,
  edit: Edit,
) {
  const target = targetOf(project, correction, channel.id);
  const ownTarget = family !== null && correction.familyTargets[family.id] !== undefined;
  /** Where each target stands is kept once a handle is moved, so that it does not shift under the hand. */
  const standing = () =>
    Object.fromEntries(
      [...designs.values()].map((d) => [d.id, correction.targetLevels[d.id] ?? d.targetOffsetDb]),
    );
  const { [spanId]: ownSpan, ...otherSpans } = correction.spans;
  return {
    target,
    /** whether the family has a target of its own */
    ownTarget,
    /** whether the span was set by hand */
    ownSpan: ownSpan !== undefined,
    setTarget: (label: string, next: Target, done = true) =>
      edit(
        label,
        {
          ...(ownTarget
            ? { familyTargets: { ...correction.familyTargets, [family.id]: next } }
            : { target: next }),
          targetLevels: standing(),
        },
        done,
      ),
    setOwnTarget: (own: boolean) => {
      if (!family) return;
      const { [family.id]: _gone, ...others } = correction.familyTargets;
      edit(own ? `${family.name} with a target of its own` : `${family.name} with the shared target`, {
        familyTargets: own ? { ...others, [family.id]: target } : others,
      });
    },
    shiftTarget: (byDb: number) =>
      edit(`target ${formatDb(byDb)}`, {
        targetLevels: Object.fromEntries(Object.entries(standing()).map(([id, v]) => [id, v + byDb])),
      }),
    placeTargetAgain: () => edit('target placed again', { targetLevels: {} }),
    setSpan: (span: Span, done?: boolean) =>
      edit(`span of ${channel.name}`, { spans: { ...correction.spans, [spanId]: span } }, done),
    setFamilySpan: (span: Span) => {
      if (!family) return;
      edit(`span of ${family.name}`, {
        spans: {
          ...correction.spans,
          ...Object.fromEntries(family.loudspeakerIds.map((id) => [id, span])),
        },
      });
    },
    findSpan: () => edit(`span of ${channel.name} found again`, { spans: otherSpans }),
  };
}
