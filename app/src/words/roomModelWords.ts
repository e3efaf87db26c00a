import type { BoxMode, ShapeMode, RoomStatistics } from '@pebble-hall/core/room';
import { formatHz } from '../charts/chartMath';

/** A sentence about a room, and what it rests on. */
export interface RoomSentence {
  text: string;
  attention: boolean;
  small?: string;
}

/** At 500 Hz and 1 kHz, where a reverberation time is asked for. */
export const middleOf = (times: readonly number[]): number => (times[3]! + times[4]!) / 2;
/** A time so far from the wanted one is heard, as a share of it: twice what is just noticed (ISO 3382-1). */
const NEAR = 0.1;
/** Where the shares of surfaces lie further apart, statistics mislead: what swallows lies together. */
const UNEVEN = 0.3;
const seconds = (s: number) => `${s.toFixed(s < 9.995 ? 2 : 0)} s`;

/** How long it rings against what is wanted. */
export function timeSentence({ eyring, sabine }: RoomStatistics, wantedS: number | null): RoomSentence {
  const now = middleOf(eyring);
  if (!Number.isFinite(now))
    return { text: 'Nothing here swallows sound: it would ring for ever.', attention: true };
  const small = `After Eyring, 500 Hz and 1 kHz, with the air; Sabine gives ${seconds(middleOf(sabine))}`;
  if (wantedS === null) return { text: `It rings for ${seconds(now)}.`, attention: false, small };
  const off = now - wantedS;
  return Math.abs(off) <= NEAR * wantedS
    ? { text: `It rings for ${seconds(now)}, as is wanted (${seconds(wantedS)}).`, attention: false, small }
    : {
        text: `It rings for ${seconds(now)}: ${seconds(Math.abs(off))} ${off > 0 ? 'longer' : 'shorter'} than is wanted.`,
        attention: true,
        small,
      };
}

/** Which surface would help most, were it treated. */
export const helpSentence = (name: string, byS: number, leftS: number, share: number): RoomSentence => ({
  text: `${name} would help most: swallowing ${Math.round(100 * share)} % at 1 kHz, it would take ${seconds(byS)} off and leave ${seconds(leftS)} there.`,
  attention: false,
});

/** How far statistics can be trusted here. @param shares absorption of each surface at 1 kHz, with its area */
export function trustSentence(
  shares: readonly { name: string; area: number; share: number }[],
  { schroederHz }: RoomStatistics,
): RoomSentence {
  const total = shares.reduce((sum, s) => sum + s.area, 0);
  const mean = shares.reduce((sum, s) => sum + s.area * s.share, 0) / total;
  const most = shares.reduce((a, b) => (b.share > a.share ? b : a));
  const small = `Below ${formatHz(schroederHz)} (2000 √(T / V)) single modes count, and no statistics`;
  return most.share - mean > UNEVEN
    ? {
        text: `Most of what swallows lies on one surface, ${most.name}: sound that goes between the others lives longer than this says.`,
        attention: true,
        small,
      }
    : {
        text: 'What swallows lies evenly enough for statistics to hold.',
        attention: false,
        small,
      };
}

/** What was measured beside what its surfaces say. */
export function measuredSentence(measuredS: number, { eyring }: RoomStatistics, spots: number): RoomSentence {
  const now = middleOf(eyring);
  const off = measuredS / now - 1;
  const by = `${Math.round(100 * Math.abs(off))} %`;
  return {
    text:
      Math.abs(off) <= NEAR
        ? `Measured at ${spots === 1 ? '1 spot' : `${spots} spots`} it rings for ${seconds(measuredS)}: the surfaces tell it within ${by}.`
        : `Measured at ${spots === 1 ? '1 spot' : `${spots} spots`} it rings for ${seconds(measuredS)}, ${by} ${off > 0 ? 'longer' : 'shorter'} than its surfaces say.`,
    attention: Math.abs(off) > NEAR,
    small: 'T20 at 500 Hz and 1 kHz, mean over the spots',
  };
}

const WAYS = ['front to back', 'side to side', 'floor to ceiling'] as const;

/** Where a mode stands: "front to back and side to side", "2 half waves front to back, 1 side to side". */
export function modeWords(
  mode: BoxMode | ShapeMode | { hz: number; over: readonly [x: number, y: number] },
): string {
  if ('over' in mode) return orderWords([...mode.over, 0]) || WAYS[2]!;
  if (!('order' in mode)) return shapeModeWords(mode);
  return orderWords(mode.order);
}

function orderWords(order: readonly number[]): string {
  const ways = order.flatMap((k, axis) => (k === 0 ? [] : [{ k, way: WAYS[axis]! }]));
  if (ways.every(({ k }) => k === 1)) return ways.map(({ way }) => way).join(' and ');
  return ways
    .map(({ k, way }, i) => `${k}${i === 0 ? ` half wave${k === 1 ? '' : 's'}` : ''} ${way}`)
    .join(', ');
}

/** A room of any outline has no front and side to a mode: what it does over the plan is seen on the drawing. */
function shapeModeWords({ upright, plan }: ShapeMode): string {
  const up = upright === 1 ? WAYS[2]! : `${upright} half waves ${WAYS[2]!}`;
  if (plan === 0) return up;
  return upright === 0 ? 'over the plan' : `over the plan and ${up}`;
}

/** Where one hears least of a mode. @param pressure there, -1 to 1 */
export const leastWords = (name: string, pressure: number): string => {
  const db = 20 * Math.log10(Math.abs(pressure));
  return `least at ${name}: ${db < -40 ? 'more than 40' : Math.round(-db)} dB below a corner`;
};
