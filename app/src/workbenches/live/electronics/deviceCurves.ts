import {
  curveLevelDb,
  curvePhaseDeg,
  ratioOf,
  smoothedCurve,
  type LiveFrame,
  type TransferCurve,
} from '@pebble-hall/core/live';
import type { ElectronicsBench } from '@pebble-hall/core/project';
import type { LiveCurve } from '../../../charts/drawLive';
import { traceColour } from '../../../charts/traceColours';
import { DEVICE_IDS } from '../../../services/liveSettings';

/** What is drawn below the level of the channels. */
export const DEVICE_LOWER = [
  'Difference',
  'Phase apart',
  'Phase',
  'Coherence',
  'Wiring',
  'Front',
  'Shapes',
] as const;
export type DeviceLower = (typeof DEVICE_LOWER)[number];
export type DrawnLower = Exclude<DeviceLower, 'Wiring' | 'Front' | 'Shapes'>;

/** The channels as they are measured at this moment, in their order; null for one that is not known. */
export const channelCurves = (frame: LiveFrame | null, count: number): (TransferCurve | null)[] =>
  DEVICE_IDS.slice(0, count).map((id) => frame?.measured.find((m) => m.id === id)?.curve ?? null);

const drawn = (colour: string, values: Float64Array, sure: Float64Array | null): LiveCurve => ({
  colour,
  values,
  sure,
  width: 2,
});

const edge = (frequency: Float64Array, at: number): LiveCurve => ({
  colour: 'target',
  values: frequency.map(() => at),
  width: 1.2,
  dash: [5, 4],
});

/** Levels of the channels; dotted, the one that was kept flat. */
export function levelCurves(
  curves: readonly (TransferCurve | null)[],
  flat: TransferCurve | null,
  smoothing: number,
): LiveCurve[] {
  return [
    ...(flat
      ? [{ colour: 'soft', values: curveLevelDb(smoothedCurve(flat, smoothing)), width: 1.4, dash: [2, 4] }]
      : []),
    ...curves.flatMap((c, i) => {
      if (!c) return [];
      const of = smoothedCurve(c, smoothing);
      return [drawn(traceColour(i), curveLevelDb(of), of.coherence)];
    }),
  ];
}

/**
 * What is drawn below: B over A between the edges of the tolerance, or each by itself. Levels apart are drawn about their mean, which is
 * told beside.
 */
export function lowerCurves(
  lower: DrawnLower,
  curves: readonly (TransferCurve | null)[],
  bench: Pick<ElectronicsBench, 'toleranceDb' | 'toleranceDeg'>,
  smoothing: number,
  meanDb: number,
): LiveCurve[] {
  const smooth = curves.map((c) => c && smoothedCurve(c, smoothing));
  if (lower === 'Phase' || lower === 'Coherence')
    return smooth.flatMap((c, i) =>
      c
        ? [
            drawn(
              traceColour(i),
              lower === 'Phase' ? curvePhaseDeg(c) : c.coherence,
              lower === 'Phase' ? c.coherence : null,
            ),
          ]
        : [],
    );
  const [a, b] = smooth;
  if (!a || !b) return [];
  const { levelDb, phaseDeg } = ratioOf(b, a);
  const most = lower === 'Difference' ? bench.toleranceDb : bench.toleranceDeg;
  const values = lower === 'Difference' ? levelDb.map((v) => v - meanDb) : phaseDeg;
  return [edge(a.frequency, most), edge(a.frequency, -most), drawn('ink', values, b.coherence)];
}

/** Axis of what is drawn below. */
export function lowerAxis(
  lower: DrawnLower,
  { toleranceDb, toleranceDeg }: Pick<ElectronicsBench, 'toleranceDb' | 'toleranceDeg'>,
): { unit: string; range: { lowDb: number; highDb: number }; ticks: number[]; caption: string } {
  const about = (most: number, unit: string, caption: string) => ({
    unit,
    caption,
    range: { lowDb: -3 * most, highDb: 3 * most },
    ticks: [-2 * most, -most, 0, most, 2 * most],
  });
  switch (lower) {
    case 'Difference':
      return about(toleranceDb, 'dB', 'channel B over channel A, about its mean; dashed, the tolerance');
    case 'Phase apart':
      return about(toleranceDeg, 'deg', 'phase of channel B over channel A; dashed, the tolerance');
    case 'Phase':
      return {
        unit: 'deg',
        caption: 'phase, after the delay that is taken off',
        range: { lowDb: -180, highDb: 180 },
        ticks: [-180, -90, 0, 90, 180],
      };
    case 'Coherence':
      return {
        unit: '0 to 1',
        caption: 'coherence: what part of what comes back belongs to what was played',
        range: { lowDb: 0, highDb: 1 },
        ticks: [0, 0.25, 0.5, 0.75, 1],
      };
  }
}
