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
  const standing = ({ targetLevels }: Correction) =>
    Object.fromEntries([...designs.values()].map((d) => [d.id, targetLevels[d.id] ?? d.targetOffsetDb]));
  return {
    target,
    /** whether the family has a target of its own */
    ownTarget,
    /** whether the span was set by hand */
    ownSpan: correction.spans[spanId] !== undefined,
    setTarget: (label: string, next: Target, done = true) =>
      edit(
        label,
        (now) => ({
          ...(ownTarget ? { familyTargets: { ...now.familyTargets, [family.id]: next } } : { target: next }),
          targetLevels: standing(now),
        }),
        done,
      ),
    setOwnTarget: (own: boolean) => {
      if (!family) return;
      edit(
        own ? `${family.name} with a target of its own` : `${family.name} with the shared target`,
        ({ familyTargets }) => {
          const { [family.id]: _gone, ...others } = familyTargets;
          return { familyTargets: own ? { ...others, [family.id]: target } : others };
        },
      );
    },
    shiftTarget: (byDb: number) =>
      edit(`target ${formatDb(byDb)}`, (now) => ({
        targetLevels: Object.fromEntries(Object.entries(standing(now)).map(([id, v]) => [id, v + byDb])),
      })),
    placeTargetAgain: () => edit('target placed again', { targetLevels: {} }),
    setSpan: (span: Span, done?: boolean) =>
      edit(`span of ${channel.name}`, ({ spans }) => ({ spans: { ...spans, [spanId]: span } }), done),
    setFamilySpan: (span: Span) => {
      if (!family) return;
      edit(`span of ${family.name}`, ({ spans }) => ({
        spans: { ...spans, ...Object.fromEntries(family.loudspeakerIds.map((id) => [id, span])) },
      }));
    },
    findSpan: () =>
      edit(`span of ${channel.name} found again`, ({ spans }) => {
        const { [spanId]: _gone, ...others } = spans;
        return { spans: others };
      }),
  };
}
