import { expectedFigures } from '@pebble-hall/core/acoustics';
import type { ReceiverReading, RoomRun } from '@pebble-hall/core/runs';
import { figureOf, type RunBand, type RunFigure } from '../../words/runWords';

const TOLD = ['g', 'c80', 'c50', 'd50'] as const;
const isTold = (figure: RunFigure): figure is (typeof TOLD)[number] =>
  (TOLD as readonly RunFigure[]).includes(figure);

/**
 * What a hall of a run's volume and reverberation time is expected to give over the distance from its source, with no wall known; null
 * where the theory tells nothing: of other figures, of sources that do not send everywhere alike, of several at once.
 * @param unit metres of one unit of the distance
 */
export function expectedOver(
  run: Pick<RoomRun, 'sources' | 'volume'>,
  readings: readonly ReceiverReading[],
  figure: RunFigure,
  band: RunBand,
  unit: number,
): { name: string; at: (distance: number) => number } | null {
  const [source, ...others] = run.sources;
  if (!isTold(figure) || source?.kind !== 'omnidirectional' || others.length > 0) return null;
  const times = readings.map((r) => figureOf(r, 't30', band)).filter(Number.isFinite);
  const timeS = times.reduce((a, b) => a + b, 0) / times.length;
  if (!(timeS > 0 && run.volume > 0)) return null;
  return {
    name: 'expected, after Barron and Lee',
    at: (distance) => expectedFigures(distance * unit, timeS, run.volume)[figure],
  };
}
