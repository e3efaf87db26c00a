import {
  lateS,
  type HeardTwo,
  type Meeting,
  type NoPair,
  type PairReading,
  type ProvenSum,
  type Suggestion,
} from '@pebble-hall/core/alignment';
import type { SourceSetting } from '@pebble-hall/core/alignment';
import type { PlaceReason } from '@pebble-hall/core/coverage';
import type { AllPassSection, CrossoverFilter } from '@pebble-hall/core/path';
import { formatHz } from '../charts/chartMath';

/** A sentence about two sources. */
export interface AlignSentence {
  text: string;
  attention: boolean;
}

/** Less of the sum is lost to nobody's ear, dB; more asks for attention. */
const FINE_DB = 0.5;
const ATTENTION_DB = 2;
/** What is told of the phase is read where it counts this much at least. */
const COUNTS = 0.3;
/** A sum in phase so far off the target is a gap, or too much. */
const GAP_DB = 3;

const minus = (text: string) => text.replace('-', '\u2212');
const fixed = (value: number, digits: number) => minus(value.toFixed(digits).replace(/^-(0(\.0+)?)$/, '$1'));
const digitsOf = (seconds: number) => (seconds < 0.000095 ? 3 : seconds < 0.00095 ? 2 : 1);
const ms = (seconds: number) => `${fixed(1000 * Math.abs(seconds), digitsOf(Math.abs(seconds)))} ms`;
export const percent = (efficiency: number) => `${Math.round(100 * efficiency)} %`;
/** How far a sum falls short of both in phase, dB. */
export const shortOf = (efficiency: number) => -20 * Math.log10(efficiency);

/** By how much the second is late or early at a frequency. */
export function lateWords(phaseDeg: number, hz: number): string {
  const late = lateS(phaseDeg, hz);
  if (Math.abs(phaseDeg) < 2) return 'in time';
  return late > 0 ? `late by ${ms(late)}` : `early by ${ms(late)}`;
}

/** Of a name that joins several. */
const isOrAre = (name: string) => (name.includes(' and ') ? 'are' : 'is');

/** The same, of what it has to do. */
export const hasOrHave = (name: string) => (name.includes(' and ') ? 'have' : 'has');

/** Where in the shared band a phase is read: its ends where it counts, and where it counts most. */
function readAt({ weight, phaseDeg }: PairReading): number[] {
  const counts = [...weight.keys()].filter((n) => weight[n]! >= COUNTS && Number.isFinite(phaseDeg[n]!));
  if (counts.length === 0) return [];
  const most = counts.reduce((a, b) => (weight[b]! > weight[a]! ? b : a));
  return [...new Set([counts[0]!, most, counts.at(-1)!])];
}

/** What two sources do together as they are set. @param moved name of the one that is brought to the other */
export function pairSentences(
  moved: string,
  against: string,
  reading: PairReading | NoPair,
): AlignSentence[] {
  if ('reason' in reading)
    return [
      {
        attention: true,
        text:
          reading.reason === 'no overlap'
            ? `${moved} and ${against} are nowhere within 10 dB of each other: ${Math.round(reading.apartDb)} dB apart at best. Nothing can be aligned there: set their levels first, or choose sources that share a band.`
            : `Where ${moved} and ${against} are equally loud, one of them is not coherent. Measure it again, louder or longer, before it is aligned.`,
      },
    ];
  const { band, efficiency, weight, meanEfficiency, phaseDeg, frequency } = reading;
  const at = readAt(reading);
  const words = at.map((n) => lateWords(phaseDeg[n]!, frequency[n]!));
  // where it is the same all over, once is enough
  const where =
    at.length > 1 && words.every((w) => w === words[0])
      ? `${words[0]} from ${formatHz(frequency[at[0]!]!)} to ${formatHz(frequency[at.at(-1)!]!)}`
      : at.map((n, i) => `${words[i]} at ${formatHz(frequency[n]!)}`).join(', ');
  const worst = [...weight.keys()]
    .filter((n) => weight[n]! >= COUNTS)
    .reduce((a, b) => (efficiency[b]! < efficiency[a]! ? b : a));
  const lost = shortOf(efficiency[worst]!);
  const short = shortOf(meanEfficiency);
  return [
    {
      attention: lost > ATTENTION_DB,
      text: `${moved} ${isOrAre(moved)} ${where}. ${lost < FINE_DB ? 'Next to nothing is lost.' : `Most is lost at ${formatHz(frequency[worst]!)}: ${lost > 20 ? 'over 20' : fixed(lost, 1)} dB.`}`,
    },
    {
      attention: short > ATTENTION_DB,
      text: `From ${formatHz(band.from)} to ${formatHz(band.to)} both are within 10 dB. There they add up to ${percent(meanEfficiency)}, ${fixed(short, 1)} dB short of both in phase.`,
    },
  ];
}

/** A measured sum is as predicted within this, dB RMS. */
const HOLDS_DB = 0.5;
/** With less of the shared band nothing is concluded. */
const LEAST_JUDGED = 0.5;

/** Whether what was predicted came true. @param proof null where nothing could be judged */
export function proofSentence(name: string, proof: ProvenSum | null): AlignSentence {
  const unjudged =
    'too little of the shared band was measured coherently. Measure all of them together again, louder or longer.';
  if (!proof || proof.judged < LEAST_JUDGED)
    return { attention: true, text: `${name} cannot be judged: ${unjudged}` };
  const { meanDb, rmsDb, worst, judged } = proof;
  const part = judged < 0.99 ? ` ${percent(judged)} of the shared band could be judged.` : '';
  return rmsDb <= HOLDS_DB
    ? {
        attention: false,
        text: `${name} is as predicted, within ${fixed(rmsDb, 1)} dB; furthest off by ${fixed(Math.abs(worst.db), 1)} dB at ${formatHz(worst.hz)}.${part}`,
      }
    : {
        attention: true,
        text: `${name} is not as predicted: ${fixed(rmsDb, 1)} dB off (RMS), ${fixed(Math.abs(meanDb), 1)} dB too ${meanDb > 0 ? 'loud' : 'quiet'} on average, most at ${formatHz(worst.hz)} (${worst.db > 0 ? '+' : ''}${fixed(worst.db, 1)} dB). Was it measured at this place, with these settings?${part}`,
      };
}

/** How two sources meet in level, whatever their phase. */
export function meetingSentence({ hz, lowest, highest }: Meeting): AlignSentence {
  const at = `They cross at ${formatHz(hz)}`;
  if (lowest.db < -GAP_DB)
    return {
      attention: true,
      text: `${at} and leave a gap: in phase their sum is still ${fixed(-lowest.db, 1)} dB below the target at ${formatHz(lowest.hz)}.`,
    };
  if (highest.db > GAP_DB)
    return {
      attention: true,
      text: `${at} and overlap too far: in phase their sum is ${fixed(highest.db, 1)} dB above the target at ${formatHz(highest.hz)}.`,
    };
  return {
    attention: false,
    text: `${at}; in phase their sum lies within ${fixed(Math.max(highest.db, -lowest.db), 1)} dB of the target.`,
  };
}

/** "80 Hz, Linkwitz-Riley 24 dB/oct". */
export const crossoverWords = ({ frequency, kind, order }: CrossoverFilter): string =>
  `${formatHz(frequency)}, ${kind} ${6 * order} dB/oct`;

/** "all-pass 71 Hz, Q 0.7", "all-pass 71 Hz, first order". */
export const allPassWords = ({ hz, q }: AllPassSection): string =>
  `all-pass ${formatHz(hz)}${q === null ? ', first order' : `, Q ${fixed(q, 1)}`}`;

/** What is done to a source, in few words: "6.40 ms, inverted, all-pass 71 Hz". */
export function settingWords({
  gainDb,
  delayS,
  inverted,
  allPasses,
  highPass,
  lowPass,
}: Pick<SourceSetting, 'delayS' | 'inverted'> & Partial<SourceSetting>): string {
  return [
    `${fixed(1000 * delayS, 2)} ms`,
    ...(gainDb ? [`${gainDb > 0 ? '+' : ''}${fixed(gainDb, 1)} dB`] : []),
    ...(inverted ? ['inverted'] : []),
    ...(highPass ? [`from ${crossoverWords(highPass)}`] : []),
    ...(lowPass ? [`up to ${crossoverWords(lowPass)}`] : []),
    ...(allPasses ?? []).map(allPassWords),
  ].join(', ');
}

const KINDS: Record<Suggestion['for'], string> = {
  most: 'adds up most',
  'most even': 'the worst spot is best',
  'least delay': 'least delay within 0.5 dB',
};

/** What a suggestion is worth and what it asks for, below its setting. */
export function suggestionWords(s: Suggestion, nowEfficiency: number, spots: number): string {
  const gain = 20 * Math.log10(s.efficiency / nowEfficiency);
  const more = 100 * (s.efficiency / nowEfficiency - 1);
  return [
    KINDS[s.for],
    `${gain >= 0 ? '+' : ''}${fixed(gain, 1)} dB (${more >= 0 ? '+' : ''}${fixed(more, 0)} %) over now`,
    ...(spots > 1 ? [`worst spot ${percent(s.worst)}`] : []),
    `half a metre costs ${fixed(s.halfMetreDb, 1)} dB, 5 K ${fixed(s.warmerDb, 1)}`,
    ...(s.allPasses.length > 0 ? [s.allPasses.length === 1 ? 'one all-pass' : 'two all-passes'] : []),
    ...(s.delayS < 0 ? ['the others wait for it'] : []),
    ...(s.atEdge ? ['at the end of the delays that were tried'] : []),
  ].join('; ');
}

const PLACES: Record<PlaceReason, string> = {
  'equally loud and together': 'equally loud, and they arrive together',
  'equally loud, between two': 'equally loud, and as far from both',
  'together, between two': 'they arrive together, and as far from both',
  'equally loud': 'equally loud',
  together: 'they arrive together',
  'between two': 'as far from both',
};
/** Why a place is a good one to bring two together at. */
export const placeWords = (reason: PlaceReason): string => PLACES[reason];

/** That what a step rests on was changed since it was set. @param names of the changed steps */
export const changedWords = (names: readonly string[]): string =>
  `${names.join(' and ')} ${names.length === 1 ? 'was' : 'were'} set otherwise since this step was set. Look at it again.`;

/** When and how loud one is heard after another. */
export function heardWords(
  moved: string,
  still: string,
  { laterS, louderDb }: HeardTwo,
  where: string,
): string {
  const when =
    Math.abs(laterS) < 5e-5 ? 'at the same time as' : `${ms(laterS)} ${laterS > 0 ? 'after' : 'before'}`;
  const loud =
    louderDb === -Infinity
      ? 'not heard'
      : `${fixed(Math.abs(louderDb), 1)} dB ${louderDb > 0 ? 'louder' : 'softer'}`;
  return `At ${where} ${moved} ${isOrAre(moved)} heard ${when} ${still}, ${loud}.`;
}
