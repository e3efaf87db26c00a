import { lessNoise, type LiveFrame, type SpectrumBands, type SpectrumReading } from '@pebble-hall/core/live';
import type { LiveRecord } from '@pebble-hall/core/project';
import { targetShape } from '@pebble-hall/core/correct';
import type { LiveCurve } from '../../charts/drawLive';
import { traceColour } from '../../charts/traceColours';
import type { LiveView } from './liveView';

/** Two points to a band, at its edges, so that it is drawn as wide as it is; narrow bands have one. */
export function bandEdges(frequency: Float64Array, bands: SpectrumBands): Float64Array {
  if (bands === 'narrow' || bands > 12) return frequency;
  const half = 10 ** (0.15 / bands);
  return Float64Array.from({ length: 2 * frequency.length }, (_, i) =>
    i % 2 === 0 ? frequency[i >> 1]! / half : frequency[i >> 1]! * half,
  );
}

const asWide = (values: Float64Array, length: number) =>
  values.length === length ? values : Float64Array.from({ length }, (_, i) => values[i >> 1]!);

interface Shown {
  live: Pick<LiveRecord, 'measurements' | 'spectrum'>;
  view: LiveView;
  selected: string;
  /** dB to add for sound pressure levels */
  offsetDb: number;
  /** of the room by itself, in the same bands */
  noiseDb: Float64Array | null;
  target: Parameters<typeof targetShape>[0] | null;
}

/** The spectrum of a measurement's input. */
export const readingOf = (
  frame: LiveFrame | null,
  { measurements }: Pick<LiveRecord, 'measurements'>,
  id: string,
): SpectrumReading | null => {
  const input = measurements.find((m) => m.id === id)?.input;
  return frame?.spectra.find((s) => s.input === input)?.reading ?? null;
};

/** What is drawn of the spectra; the chosen one over the others, with what is asked for of it. */
export function spectrumCurves(frame: LiveFrame | null, shown: Shown, points: number): LiveCurve[] {
  const { live, view, selected, offsetDb, noiseDb, target } = shown;
  const curve = (values: Float64Array, colour: string, more: Partial<LiveCurve> = {}): LiveCurve => ({
    colour,
    values: asWide(
      values.map((v) => v + offsetDb),
      points,
    ),
    width: 1.6,
    ...more,
  });
  const fits = ({ frequency }: SpectrumReading) =>
    points === frequency.length || points === 2 * frequency.length;
  const curves: LiveCurve[] = [];
  live.measurements.forEach((m, i) => {
    const reading = readingOf(frame, live, m.id);
    if (!reading || !fits(reading) || view.hidden.includes(m.id) || m.id === selected) return;
    curves.push(curve(reading.levelDb, traceColour(i)));
  });
  const reading = readingOf(frame, live, selected);
  if (!reading || !fits(reading)) return curves;
  const colour = traceColour(live.measurements.findIndex((m) => m.id === selected));
  const thin = { width: 1, dash: [] };
  if (view.overlays.includes('max')) curves.push(curve(reading.maxDb, colour, thin));
  if (view.overlays.includes('min')) curves.push(curve(reading.minDb, colour, thin));
  if (view.overlays.includes('L10 to L90'))
    for (const values of [reading.l10Db, reading.l90Db])
      curves.push(curve(values, colour, { width: 1, dash: [4, 3] }));
  if (target && view.overlays.includes('target'))
    curves.push(curve(placedTarget(reading, target), 'target', { width: 2.4 }));
  const noise = noiseDb && noiseDb.length === reading.levelDb.length ? noiseDb : null;
  if (noise) curves.push(curve(noise, 'soft', { width: 1.2 }));
  if (noise && view.lessNoise) {
    curves.push(curve(reading.levelDb, colour, { width: 1, dash: [2, 4] }));
    curves.push(curve(lessNoise(reading.levelDb, noise).levelDb, colour, { width: 2.6 }));
  } else curves.push(curve(reading.levelDb, colour, { width: 2.6 }));
  return curves;
}

/** A target's shape at the mean level of the middle of the band. */
function placedTarget(
  { frequency, levelDb }: SpectrumReading,
  target: Parameters<typeof targetShape>[0],
): Float64Array {
  const shape = targetShape(target, frequency);
  let [sum, count] = [0, 0];
  frequency.forEach((f, n) => {
    if (f < 200 || f > 4000 || !Number.isFinite(levelDb[n]!)) return;
    sum += levelDb[n]! - shape[n]!;
    count++;
  });
  return shape.map((v) => v + sum / count);
}

/** Range of levels that shows spectra: whole 10 dB. */
export function spectrumRange(curves: readonly LiveCurve[]): { lowDb: number; highDb: number } | null {
  const values = curves.flatMap((c) => [...c.values].filter((v) => Number.isFinite(v) && v > -200));
  if (values.length < 8) return null;
  values.sort((a, b) => a - b);
  const highDb = Math.ceil((values.at(-1)! + 4) / 10) * 10;
  const lowDb = Math.floor((values[Math.floor(0.05 * values.length)]! - 5) / 10) * 10;
  return { highDb, lowDb: Math.max(Math.min(lowDb, highDb - 40), highDb - 90) };
}
