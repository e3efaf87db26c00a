import type { ChannelDesign } from '@pebble-hall/core/correct';
import type { ChartBand, ChartTrace } from '../../../charts/ResponseChart';
import type { Shown } from '../pages';

/** Curves of one channel: as found, as left (predicted), another variant, single spots. */
export function channelTraces(
  design: ChannelDesign,
  { spots }: Shown,
  spotLevels: Float64Array[],
  against: { name: string; design: ChannelDesign } | null,
  bass: 'with its bass' | 'without its bass' | null = null,
): ChartTrace[] {
  return [
    {
      id: 'found',
      label: 'as found, average',
      role: 'measured',
      colour: 'trace-mussel',
      levels: design.found.averageDb,
    },
    {
      id: 'predicted',
      label: bass === null ? 'as left (predicted)' : `as left (predicted), ${bass}`,
      role: 'predicted',
      colour: 'trace-heather',
      levels: design.predicted.averageDb,
    },
    ...(against
      ? [
          {
            id: 'against',
            label: `as left by ${against.name}`,
            role: 'reference' as const,
            colour: 'trace-buoy',
            levels: against.design.predicted.averageDb,
          },
        ]
      : []),
    ...(spots
      ? spotLevels.map((levels, i) => ({
          id: `spot ${i}`,
          label: i === 0 ? 'single spots, as left' : '',
          role: 'noise' as const,
          colour: 'trace-slate',
          levels: levels.map((v, k) => v + design.gainDb[k]!),
        }))
      : []),
  ];
}

export const channelBands = (design: ChannelDesign, shown: Shown): ChartBand[] => [
  ...(shown.seatRangeBefore
    ? [
        {
          id: 'range',
          label: 'seat range',
          colour: 'trace-mussel',
          low: design.found.lowDb,
          high: design.found.highDb,
        },
      ]
    : []),
  ...(shown.seatRangeAfter
    ? [
        {
          id: 'after',
          label: 'seat range as left',
          colour: 'trace-heather',
          low: design.predicted.lowDb,
          high: design.predicted.highDb,
        },
      ]
    : []),
];

/** What filters do: as designed, as made, and another variant's. */
export const filterTraces = (
  design: ChannelDesign,
  madeDb: Float64Array | null,
  against: { name: string; design: ChannelDesign } | null,
): ChartTrace[] => [
  { id: 'asked', label: 'asked for', role: 'predicted', colour: 'trace-heather', levels: design.gainDb },
  ...(madeDb
    ? [{ id: 'made', label: 'as made', role: 'measured' as const, colour: 'trace-kelp', levels: madeDb }]
    : []),
  ...(against
    ? [
        {
          id: 'against',
          label: `asked by ${against.name}`,
          role: 'reference' as const,
          colour: 'trace-buoy',
          levels: against.design.gainDb,
        },
        {
          id: 'difference',
          label: 'difference of both',
          role: 'noise' as const,
          colour: 'trace-slate',
          levels: design.gainDb.map((v, i) => v - against.design.gainDb[i]!),
        },
      ]
    : []),
];
