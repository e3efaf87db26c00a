import type { Span, Target } from '@pebble-hall/core/correct';
import type { Correction, Family } from '@pebble-hall/core/project';
import { formatDb } from '../../charts/chartMath';
import type { Edit } from './useCorrection';

/** What the hand is on: a channel, and what its edits rest on. */
export interface InHand {
  channel: { id: string; name: string };
  /** the family of the channel */
  family: Family | null;
  /** the channel whose span this one shares: the first of subwoofers that work together, else itself */
  spanId: string;
  /** where the target of each channel stands, dB */
  targetOffsets: Record<string, number>;
}

/** What becomes of the target that is in hand, whichever it is when it is changed. */
export type EditTarget = (label: string, change: (now: Target) => Target, done?: boolean) => void;

/** A span never turns over, whatever its other end has become meanwhile. */
const withEnd = (span: Span, end: keyof Span, frequency: number): Span =>
  end === 'from'
    ? { from: Math.min(frequency, span.to / 2), to: span.to }
    : { from: span.from, to: Math.max(frequency, 2 * span.from) };

/** What a hand can do to target and span of a channel. Each verb changes what is there by then, not what was drawn. */
export function correctionVerbs({ channel, family, spanId, targetOffsets }: InHand, edit: Edit) {
  /** Where each target stands is kept once a handle is moved, so that it does not shift under the hand. */
  const standing = ({ targetLevels }: Correction) =>
    Object.fromEntries(Object.entries(targetOffsets).map(([id, db]) => [id, targetLevels[id] ?? db]));
  const setTarget: EditTarget = (label, change, done = true) =>
    edit(
      label,
      (now) => {
        const own = family && now.familyTargets[family.id];
        return {
          ...(own
            ? { familyTargets: { ...now.familyTargets, [family.id]: change(own) } }
            : { target: change(now.target) }),
          targetLevels: standing(now),
        };
      },
      done,
    );
  return {
    setTarget,
    setOwnTarget: (own: boolean) => {
      if (!family) return;
      edit(
        own ? `${family.name} with a target of its own` : `${family.name} with the shared target`,
        ({ familyTargets, target }) => {
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
    /** @param end the one that is moved: the other one stays as it is stored by then */
    setSpan: (span: Span, end: keyof Span, done?: boolean) =>
      edit(
        `span of ${channel.name}`,
        ({ spans }) => ({ spans: { ...spans, [spanId]: withEnd(spans[spanId] ?? span, end, span[end]) } }),
        done,
      ),
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
