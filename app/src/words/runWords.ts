import { OCTAVES } from '@pebble-hall/core/room';
import type { ReceiverReading } from '@pebble-hall/core/runs';
import { inNoticeable, NOTICEABLE, type EnergyFigures } from '@pebble-hall/core/tracing';

/** Those that no run tells the error of. */
export type UnsureFigure = 'evenEarly' | 'evenLate' | 'direct';
export type RunFigure = keyof EnergyFigures | 'sti' | 'level' | UnsureFigure;
const isUnsure = (figure: RunFigure): figure is UnsureFigure =>
  figure === 'evenEarly' || figure === 'evenLate' || figure === 'direct';

interface Meaning {
  name: string;
  /** as a label where there is little room */
  short: string;
  unit: string;
  digits: number;
  /** indices of the octaves whose mean stands for all (ISO 3382-1:2009, table A.1); null for one that has no octaves */
  mean: readonly number[] | null;
  /** of one that has no octaves: what it is over */
  over?: string;
}

const MIDDLE = [3, 4];
/** What is read at a receiver, in the order in which it is stepped through. */
export const RUN_FIGURES: Record<RunFigure, Meaning> = {
  sti: {
    name: 'Speech transmission index',
    short: 'STI',
    unit: '',
    digits: 2,
    mean: null,
    over: 'all octaves of speech',
  },
  t30: { name: 'Reverberation time T30', short: 'T30', unit: 's', digits: 2, mean: MIDDLE },
  t20: { name: 'Reverberation time T20', short: 'T20', unit: 's', digits: 2, mean: MIDDLE },
  edt: { name: 'Early decay time', short: 'EDT', unit: 's', digits: 2, mean: MIDDLE },
  c50: { name: 'Clarity C50', short: 'C50', unit: 'dB', digits: 1, mean: MIDDLE },
  c80: { name: 'Clarity C80', short: 'C80', unit: 'dB', digits: 1, mean: MIDDLE },
  d50: { name: 'Definition D50', short: 'D50', unit: '', digits: 2, mean: MIDDLE },
  ts: { name: 'Centre time', short: 'Ts', unit: 's', digits: 3, mean: MIDDLE },
  g: { name: 'Strength G', short: 'G', unit: 'dB', digits: 1, mean: MIDDLE },
  lf: { name: 'Lateral energy fraction', short: 'LF', unit: '', digits: 2, mean: [1, 2, 3, 4] },
  evenEarly: {
    name: 'Evenness of directions, up to 80 ms',
    short: 'Even, early',
    unit: '%',
    digits: 0,
    mean: null,
    over: '500 Hz to 2 kHz',
  },
  evenLate: {
    name: 'Evenness of directions, after 80 ms',
    short: 'Even, late',
    unit: '%',
    digits: 0,
    mean: null,
    over: '500 Hz to 2 kHz',
  },
  direct: {
    name: 'Direct sound of one source',
    short: 'Direct',
    unit: 'dB',
    digits: 1,
    mean: null,
    over: '500 Hz to 2 kHz',
  },
  level: { name: 'Sound pressure level', short: 'Level', unit: 'dB', digits: 1, mean: MIDDLE },
};
export const RUN_FIGURE_KEYS = Object.keys(RUN_FIGURES) as RunFigure[];

/** In which octave: its index, or the mean that stands for all. */
export type RunBand = number | 'mean';

const mean = (values: number[]) => values.reduce((a, b) => a + b, 0) / values.length;

/** Whether a figure is one of each octave. */
export const hasOctaves = (figure: RunFigure): boolean => RUN_FIGURES[figure].mean !== null;

/** A figure at a receiver; NaN where there is none. That of direct sound alone is of one source, and not among what is read. */
export function figureOf(reading: ReceiverReading, figure: RunFigure, band: RunBand): number {
  if (figure === 'sti') return reading.sti;
  if (figure === 'direct') return NaN;
  if (figure === 'evenEarly' || figure === 'evenLate')
    return 100 * (reading.evenness?.[figure === 'evenEarly' ? 'early' : 'late'] ?? NaN);
  const at = (o: number) => (figure === 'level' ? reading.levelDb[o]! : reading.figures[o]![figure]);
  return band === 'mean' ? mean(RUN_FIGURES[figure].mean!.map(at)) : at(band);
}

/** Its standard error; of a level there is that of the strength, of evenness none is known. */
export function errorOf(reading: ReceiverReading, figure: RunFigure, band: RunBand): number {
  if (figure === 'sti') return reading.stiError;
  if (isUnsure(figure)) return NaN;
  const key = figure === 'level' ? 'g' : figure;
  const at = (o: number) => reading.errors[o]![key];
  // octaves share their rays, so their errors do not average out
  return band === 'mean' ? mean(RUN_FIGURES[figure].mean!.map(at)) : at(band);
}

/** An error in just-noticeable differences. */
export const errorInNoticeable = (reading: ReceiverReading, figure: RunFigure, band: RunBand): number =>
  isUnsure(figure)
    ? NaN
    : inNoticeable(
        figure === 'level' ? 'g' : figure,
        errorOf(reading, figure, band),
        figureOf(reading, figure, band),
      );

/** What is just noticed of a figure, in its own unit, about the mean of some values; of what the standard says nothing of, a twentieth. */
export function justNoticed(figure: RunFigure, values: readonly number[]): number {
  if (figure === 'level' || figure === 'direct') return NOTICEABLE.g.by;
  if (isUnsure(figure)) return UNSURE_NOTICED;
  const known = values.filter(Number.isFinite);
  return known.length > 0 ? 1 / inNoticeable(figure, 1, mean(known)) : 0;
}
const UNSURE_NOTICED = 0.05;

/** A figure as text, with a true minus sign. */
export function figureText(value: number, figure: RunFigure): string {
  const { unit, digits } = RUN_FIGURES[figure];
  if (!Number.isFinite(value)) return 'not known';
  return `${value.toFixed(digits).replace('-', '−')}${unit ? ` ${unit}` : ''}`;
}

/** How speech is understood (IEC 60268-16, informative). */
export const speechWord = (sti: number): string =>
  sti < 0.3 ? 'bad' : sti < 0.45 ? 'poor' : sti < 0.6 ? 'fair' : sti < 0.75 ? 'good' : 'excellent';

/** The same as one says it: "speech is understood fairly". */
export const understoodWord = (sti: number): string =>
  ({ bad: 'badly', poor: 'poorly', fair: 'fairly', good: 'well' })[speechWord(sti)] ?? 'excellently';

/** Octave as a label. */
export const octaveText = (o: number): string =>
  OCTAVES[o]! < 1000 ? `${OCTAVES[o]!} Hz` : `${OCTAVES[o]! / 1000} kHz`;
export const bandText = (band: RunBand, figure: RunFigure): string => {
  const { mean: of, over } = RUN_FIGURES[figure];
  if (!of) return over ?? '';
  return band === 'mean' ? `mean of ${octaveText(of[0]!)} to ${octaveText(of.at(-1)!)}` : octaveText(band);
};

/** Where and how a figure is least, and most. */
export function spreadOf(values: readonly number[]): { least: number; most: number; mean: number } | null {
  const known = values.map((v, i) => ({ v, i })).filter(({ v }) => Number.isFinite(v));
  if (known.length === 0) return null;
  const by = (better: (a: number, b: number) => boolean) =>
    known.reduce((best, one) => (better(one.v, best.v) ? one : best)).i;
  return {
    least: by((a, b) => a < b),
    most: by((a, b) => a > b),
    mean: mean(known.map(({ v }) => v)),
  };
}

/** Errors of which figures are looked at when a run is judged. */
export const JUDGED: readonly RunFigure[] = ['t30', 't20', 'edt', 'c80', 'd50', 'ts', 'g', 'lf', 'sti'];

/** The least sure of all figures at all receivers. */
export interface LeastSure {
  figure: RunFigure;
  /** octave; null of the speech transmission index */
  octave: number | null;
  receiver: number;
  error: number;
}

/** The largest error in just-noticeable differences of some figures; null where none is known. */
export function leastSure(
  readings: readonly ReceiverReading[],
  figures: readonly RunFigure[] = JUDGED,
): LeastSure | null {
  let worst: LeastSure | null = null;
  readings.forEach((reading, receiver) => {
    for (const figure of figures)
      for (const octave of RUN_FIGURES[figure].mean ? OCTAVES.keys() : [null]) {
        const error = errorInNoticeable(reading, figure, octave ?? 'mean');
        if (Number.isFinite(error) && (!worst || error > worst.error))
          worst = { figure, octave, receiver, error };
      }
  });
  return worst;
}

/** Up to this many just-noticeable differences a figure is trusted. */
export const TRUSTED = 1;

/** What can be trusted of a run, and what would have to be done for the rest. @param names of receivers @param times the rays that the least sure figure asks for */
export function trustRunSentence(
  readings: readonly ReceiverReading[],
  names: readonly string[],
  times: (error: number) => number,
): { text: string; attention: boolean } {
  const sure = JUDGED.filter((f) => {
    const worst = leastSure(readings, [f]);
    return worst !== null && worst.error <= TRUSTED;
  });
  const worst = leastSure(readings);
  if (!worst) return { text: 'Nothing arrives, so there is nothing to trust.', attention: true };
  if (worst.error <= TRUSTED)
    return { text: 'Trust all of it: chance is below what one would notice.', attention: false };
  const first =
    sure.length > 0
      ? `Trust ${sure.map((f) => RUN_FIGURES[f].short).join(', ')}; `
      : 'Trust none of it in each octave yet: ';
  const where = worst.octave === null ? '' : ` at ${octaveText(worst.octave)}`;
  return {
    text: `${first}${RUN_FIGURES[worst.figure].short}${where}, ${names[worst.receiver]!}, needs ${times(worst.error)} times the rays.`,
    attention: sure.length === 0,
  };
}

/** Which octaves of a run waves tell, from the lowest on; nothing where rays tell all. */
export function byWavesWords(octaves: number): string | undefined {
  if (octaves === 0) return undefined;
  const names = OCTAVES.slice(0, octaves).map((hz) => String(hz));
  const all = names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : names[0]!;
  return `${all} Hz by waves (finite differences), which chance has no part in; above by rays`;
}

/** What changed since a run. */
export function changedWords(changed: { surfaces: string[] | null; air: boolean }): string {
  if (changed.surfaces === null) return 'The room has another shape since this run.';
  const { surfaces } = changed;
  const names =
    surfaces.length > 3
      ? `${surfaces.length} surfaces swallow or scatter otherwise`
      : surfaces.length > 0
        ? `${surfaces.join(', ')} ${surfaces.length === 1 ? 'swallows or scatters' : 'swallow or scatter'} otherwise`
        : '';
  const air = changed.air ? 'the air is another one' : '';
  return `Since this run ${[names, air].filter(Boolean).join(', and ')}.`;
}

/** Seconds that are left, as one says them. */
export const leftWords = (seconds: number | null): string =>
  seconds === null
    ? ''
    : seconds < 90
      ? `${Math.max(1, Math.round(seconds))} s left`
      : `${Math.round(seconds / 60)} min left`;

/** How alike both ears hear a place: the more they differ, the more the sound surrounds. */
export function bothEarsSentence({ early, late }: { early: number; late: number }): string {
  if (!Number.isFinite(early)) return 'Nothing arrives at either ear in the first 80 ms.';
  const said = (v: number) => (Number.isFinite(v) ? v.toFixed(2) : 'nothing');
  const wide =
    early < 0.4
      ? 'from the sides as much as from ahead'
      : early < 0.7
        ? 'from ahead, with something from the sides'
        : 'nearly all from ahead';
  return `Early sound comes ${wide}: both ears agree by ${said(early)} in the first 80 ms, by ${said(late)} after it.`;
}

/** How evenly sound comes from all around; null where that was not kept. */
export function evennessSentence(evenness: ReceiverReading['evenness']): string | null {
  if (!evenness) return null;
  const { early, late } = evenness;
  if (!Number.isFinite(late)) return null;
  const said = (v: number) => `${Math.round(100 * v)} %`;
  const first = Number.isFinite(early)
    ? `Reflections up to 80 ms come ${early < 0.25 ? 'from a few directions' : early < 0.5 ? 'from one side more than from others' : 'from many sides'} (even by ${said(early)})`
    : 'No reflection comes within 80 ms';
  return `${first}, what comes later ${late > 0.75 ? 'from all around' : late > 0.5 ? 'from most sides' : 'from some sides only'} (${said(late)}).`;
}

/** Where the lows at a place are least and most, and up to where they are waves. */
export function lowsSentence({
  frequency,
  levelDb,
  upToHz,
}: {
  frequency: Float64Array;
  levelDb: Float64Array;
  upToHz: number;
}): string {
  let [least, most] = [-1, -1];
  frequency.forEach((hz, k) => {
    if (hz < 20 || hz > upToHz) return;
    if (least < 0 || levelDb[k]! < levelDb[least]!) least = k;
    if (most < 0 || levelDb[k]! > levelDb[most]!) most = k;
  });
  if (least < 0) return 'Nothing of the lows is told apart here.';
  const at = (k: number) => `${frequency[k]!.toFixed(1)} Hz`;
  return `Below ${upToHz.toFixed(0)} Hz single modes are heard, so waves are worked out: least here at ${at(least)}, most at ${at(most)}, ${(levelDb[most]! - levelDb[least]!).toFixed(0)} dB apart. The response that one listens to has them.`;
}
