import { lessNoise, noiseCriterion, noiseRating, type SpectrumReading } from '@pebble-hall/core/live';
import type { NoiseTrait } from '@pebble-hall/core/commissioning';
import { formatHz } from '../charts/chartMath';
import { listed } from './listed';
import type { LiveSentence } from './liveWords';
import { noiseSentence } from './noiseSentence';

/** Where the noise explains this share of the power, the spectrum is the noise's. */
const MOSTLY = 0.5;

export interface HeardSpectrum {
  name: string;
  reading: SpectrumReading;
  /** of the room by itself, in the same bands; null where it was not kept */
  noiseDb: Float64Array | null;
  weighting: 'A' | 'C' | 'Z';
  /** dB to add for sound pressure levels; null while that is not known */
  splOffsetDb: number | null;
  /** in octaves, not weighted; null where they are not of this input */
  octaves: SpectrumReading | null;
  /** what stands out while nothing plays; null where nobody looked */
  traits: NoiseTrait[] | null;
}

/** What a spectrum says, in plain sentences. */
export function spectrumSentences(heard: HeardSpectrum): LiveSentence[] {
  const { name, reading, weighting, splOffsetDb, noiseDb, octaves, traits } = heard;
  if (!Number.isFinite(reading.overallDb)) return [];
  const said: LiveSentence[] = [];
  const unit = `dB(${weighting})${splOffsetDb === null ? ' re full scale' : ''}`;
  const level = (reading.overallDb + (splOffsetDb ?? 0)).toFixed(1).replace('-', '\u2212');
  said.push({ text: `${name}: ${level} ${unit}, averaged.`, attention: false });
  if (noiseDb) said.push(...noiseShare(reading, noiseDb));
  if (splOffsetDb !== null && octaves) {
    const levels = [...octaves.levelDb.subarray(0, 9)].map((v) => v + splOffsetDb);
    const [nr, nc] = [noiseRating(levels), noiseCriterion(levels)];
    if (nr)
      said.push({
        text: `What is heard rates NR ${Math.round(nr.rating)}, decided by the octave at ${formatHz(nr.decidingHz)}${
          nc ? `, and NC ${Math.round(nc.rating)}, by the one at ${formatHz(nc.decidingHz)}` : ''
        }.`,
        attention: false,
      });
  }
  for (const trait of traits ?? []) said.push({ text: noiseSentence(trait), attention: true });
  return said;
}

/** What part of a spectrum the room's own noise explains. */
function noiseShare({ frequency, levelDb }: SpectrumReading, noiseDb: Float64Array): LiveSentence[] {
  if (noiseDb.length !== levelDb.length) return [];
  const { share, overallShare } = lessNoise(levelDb, noiseDb);
  if (!Number.isFinite(overallShare)) return [];
  const stretches = noisyStretches(share);
  if (stretches.some(([from, to]) => from === 0 && to === share.length))
    return [{ text: 'The room’s own noise explains all of it: nothing else is heard.', attention: true }];
  const ends = stretches.map(([from, to]) =>
    from === 0
      ? `below ${formatHz(frequency[to]!)}`
      : to === share.length
        ? `above ${formatHz(frequency[from - 1]!)}`
        : `from ${formatHz(frequency[from]!)} to ${formatHz(frequency[to - 1]!)}`,
  );
  const percent = 100 * overallShare;
  return [
    {
      text: `The room’s own noise explains ${percent < 1 ? 'less than 1' : percent.toFixed(0)} % of it${
        ends.length > 0 ? `, and most of it ${listed(ends, 3)}` : ''
      }.`,
      attention: overallShare > MOSTLY || ends.length > 0,
    },
  ];
}

/** Bands in a row, half-open, of which the noise explains most. */
function noisyStretches(share: Float64Array): [from: number, to: number][] {
  const found: [number, number][] = [];
  share.forEach((v, n) => {
    if (!(v >= MOSTLY)) return;
    const last = found.at(-1);
    if (last?.[1] === n) last[1] = n + 1;
    else found.push([n, n + 1]);
  });
  return found;
}
