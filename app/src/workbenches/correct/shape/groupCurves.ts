import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { ChartBand, ChartTrace } from '../../../charts/ResponseChart';
import type { Look, Shown } from '../pages';

/** A channel of a family, or of the place. */
export interface Member {
  name: string;
  design: ChannelDesign;
}

const COLOURS = [
  'trace-kelp',
  'trace-buoy',
  'trace-heather',
  'trace-gorse',
  'trace-mussel',
  'trace-campion',
  'trace-moss',
  'trace-slate',
];

/** Curves of several channels, a colour each: as left dashed, as found solid, or what their filters do. */
export function groupTraces(members: Member[], look: Look, shown: Pick<Shown, 'found'>): ChartTrace[] {
  const curves = (role: ChartTrace['role'], label: (name: string) => string, of: LevelsOf): ChartTrace[] =>
    members.map(({ name, design }, i) => ({
      id: `${role} ${name}`,
      label: label(name),
      role,
      colour: COLOURS[i % COLOURS.length]!,
      levels: of(design),
    }));
  if (look === 'Filter')
    return curves(
      'predicted',
      (name) => name,
      (d) => d.gainDb,
    );
  return [
    ...curves(
      'predicted',
      (name) => name,
      (d) => d.predicted.averageDb,
    ),
    ...(shown.found
      ? curves(
          'measured',
          () => '',
          (d) => d.found.averageDb,
        )
      : []),
  ];
}
type LevelsOf = (design: ChannelDesign) => Float64Array;

/** From the quietest seat of any channel to the loudest of any, as found and as left. */
export function groupBands(
  members: Member[],
  shown: Pick<Shown, 'seatRangeBefore' | 'seatRangeAfter'>,
): ChartBand[] {
  const band = (id: string, label: string, colour: string, which: 'found' | 'predicted'): ChartBand => ({
    id,
    label,
    colour,
    low: across(members, (d) => d[which].lowDb, Math.min),
    high: across(members, (d) => d[which].highDb, Math.max),
  });
  if (members.length === 0) return [];
  return [
    ...(shown.seatRangeBefore ? [band('range', 'seat range, all', 'trace-mussel', 'found')] : []),
    ...(shown.seatRangeAfter ? [band('after', 'seat range as left, all', 'trace-heather', 'predicted')] : []),
  ];
}

/** The mean of their targets, where all aim at one shape; null without any. */
export const groupTarget = (members: Member[]): Float64Array | null =>
  members.length === 0
    ? null
    : across(
        members,
        (d) => d.targetDb,
        (...levels) => levels.reduce((a, b) => a + b) / levels.length,
      );

const across = (members: Member[], of: LevelsOf, join: (...levels: number[]) => number): Float64Array =>
  of(members[0]!.design).map((_, i) => join(...members.map((m) => of(m.design)[i]!)));
