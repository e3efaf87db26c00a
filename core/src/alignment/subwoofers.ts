import { sectionsLevelDb, sumPathsAtPoints, type Section } from '../path/index.js';
import { plainSub, subPath, type SubSetting } from '../processing/index.js';
import { inSteps, seededRandom, type ComplexTrace, type Random } from '../signal/index.js';

export interface SubLimits {
  mostDelayS: number;
  /** a subwoofer is lowered by no more than this, dB */
  mostCutDb: number;
  /** sections per subwoofer, 0 to 4 */
  sections: number;
  maxBoostDb: number;
  maxCutDb: number;
}

export const STARTING_SUB_LIMITS: SubLimits = {
  mostDelayS: 0.02,
  mostCutDb: 6,
  sections: 2,
  maxBoostDb: 3,
  maxCutDb: 10,
};

/** Responses of all subwoofers at all spots, `at[sub][spot]`; the band that counts is that of their frequencies. */
export interface SubResponses {
  rate: number;
  at: ComplexTrace[][];
}

export interface SubsTogether {
  settings: SubSetting[];
  /** mean over the band of the standard deviation over the spots, dB, before and after */
  deviationDb: { before: number; after: number };
  /** mean level over spots and band, after less before, dB: what evenness costs */
  levelDb: number;
}

/** Levels lost count against evenness: so many dB of deviation for each dB beyond what is free. */
const FREE_LOSS_DB = 3;
const PRICE = 0.3;
/** Of each dB beyond the limits of boost and cut: nothing is worth that. */
const BEYOND_PRICE = 10;
const STARTS = 600;
const REFINED = 6;
const SMALLEST_STEP = 0.01;

/** Sum of all subwoofers with their settings, one trace for each spot. */
export const sumOfSubs = ({ at, rate }: SubResponses, settings: SubSetting[]): ComplexTrace[] =>
  sumPathsAtPoints(
    settings.map((setting) => ({ path: subPath(setting, rate) })),
    at,
  );

/** Mean over the frequencies of the standard deviation over the spots of a level, dB; and the mean level. */
export function seatDeviation(spots: ComplexTrace[]): { deviationDb: number; levelDb: number } {
  const n = spots[0]!.re.length;
  let [deviation, level] = [0, 0];
  for (let k = 0; k < n; k++) {
    let [sum, squares] = [0, 0];
    for (const { re, im } of spots) {
      const db = 10 * Math.log10(re[k]! ** 2 + im[k]! ** 2 + 1e-30);
      sum += db;
      squares += db * db;
    }
    const mean = sum / spots.length;
    deviation += Math.sqrt(Math.max(0, squares / spots.length - mean * mean));
    level += mean;
  }
  return { deviationDb: deviation / n, levelDb: level / n };
}

/**
 * Delay, gain, polarity and sections of each subwoofer that make the seats alike, over all spots at once (Welti and
 * Devantier 2006): a seeded random search, the best of it refined by a pattern search. Level beyond 3 dB of loss is paid
 * for. The first subwoofer keeps its polarity, and delays are counted from the earliest.
 * @throws RangeError for less than two subwoofers or less than two spots
 */
export function subsTogether(
  responses: SubResponses,
  limits: SubLimits = STARTING_SUB_LIMITS,
  seed = 1,
): SubsTogether {
  const subs = responses.at.length;
  if (subs < 2 || (responses.at[0]?.length ?? 0) < 2)
    throw new RangeError('subsTogether: wants two subwoofers and two spots at least');
  const plain = Array.from({ length: subs }, plainSub);
  const before = seatDeviation(sumOfSubs(responses, plain));
  const { frequency } = responses.at[0]![0]!;
  const price = (settings: SubSetting[]) => {
    const { deviationDb, levelDb } = seatDeviation(sumOfSubs(responses, settings));
    const beyond = Math.max(...settings.map((s) => beyondDb(s.sections, frequency, responses.rate, limits)));
    return deviationDb + PRICE * Math.max(0, before.levelDb - FREE_LOSS_DB - levelDb) + BEYOND_PRICE * beyond;
  };
  const random = seededRandom(seed);
  const tried = [
    plain,
    ...Array.from({ length: STARTS }, () => randomSettings(random, subs, frequency, limits)),
  ]
    .map((settings) => ({ settings, price: price(settings) }))
    .sort((a, b) => a.price - b.price)
    .slice(0, REFINED)
    .map((start) => refined(start, price, frequency, limits));
  const best = tried.reduce((a, b) => (b.price < a.price ? b : a));
  const settings = tidy(best.settings);
  const after = seatDeviation(sumOfSubs(responses, settings));
  return {
    settings,
    deviationDb: { before: before.deviationDb, after: after.deviationDb },
    levelDb: after.levelDb - before.levelDb,
  };
}

/** By how much sections go beyond the limits of boost and cut together, dB; 0 within them. */
function beyondDb(
  sections: Section[],
  frequency: Float64Array,
  rate: number,
  { maxBoostDb, maxCutDb }: SubLimits,
): number {
  if (sections.length === 0) return 0;
  let beyond = 0;
  for (const db of sectionsLevelDb(sections, rate, frequency))
    beyond = Math.max(beyond, db - maxBoostDb, -maxCutDb - db);
  return beyond;
}

export function randomSettings(
  random: Random,
  subs: number,
  frequency: Float64Array,
  limits: SubLimits,
): SubSetting[] {
  const between = (from: number, to: number) => from + (to - from) * random.uniform();
  const [low, high] = [frequency[0]!, frequency.at(-1)!];
  return Array.from({ length: subs }, (_, i) => ({
    gainDb: between(-limits.mostCutDb, 0),
    delayS: between(0, limits.mostDelayS),
    inverted: i > 0 && random.uniform() < 0.5,
    sections: Array.from({ length: limits.sections }, () => ({
      kind: 'peak' as const,
      frequency: low * (high / low) ** random.uniform(),
      gainDb: between(-limits.maxCutDb, limits.maxBoostDb) * 0.6,
      q: Math.exp(between(0, 2)),
    })),
  }));
}

/** Pattern search (Hooke and Jeeves 1961): one value after the other is moved both ways, steps halve when none helps. */
function refined(
  start: { settings: SubSetting[]; price: number },
  price: (settings: SubSetting[]) => number,
  frequency: Float64Array,
  limits: SubLimits,
): { settings: SubSetting[]; price: number } {
  const [low, high] = [frequency[0]!, frequency.at(-1)!];
  const clamp = (v: number, from: number, to: number) => Math.min(to, Math.max(from, v));
  let now = start;
  for (let step = 1; step > SMALLEST_STEP;) {
    let moved = false;
    const attempt = (index: number, change: (s: SubSetting) => SubSetting) => {
      const settings = now.settings.map((s, i) => (i === index ? change(s) : s));
      const cost = price(settings);
      if (cost < now.price - 1e-6) {
        now = { settings, price: cost };
        moved = true;
        return true;
      }
      return false;
    };
    for (let i = 0; i < now.settings.length; i++) {
      if (i > 0 && step === 1) attempt(i, (s) => ({ ...s, inverted: !s.inverted }));
      for (const direction of [1, -1]) {
        const by = direction * step;
        attempt(i, (s) => ({ ...s, gainDb: clamp(s.gainDb + 3 * by, -limits.mostCutDb, 0) }));
        attempt(i, (s) => ({ ...s, delayS: clamp(s.delayS + 0.004 * by, 0, limits.mostDelayS) }));
        for (let j = 0; j < limits.sections; j++) {
          const section = (change: (x: Section) => Section) => (s: SubSetting) => ({
            ...s,
            sections: s.sections.map((x, n) => (n === j ? change(x) : x)),
          });
          if (!now.settings[i]!.sections[j]) continue;
          attempt(
            i,
            section((x) => ({ ...x, gainDb: clamp(x.gainDb + 3 * by, -limits.maxCutDb, limits.maxBoostDb) })),
          );
          attempt(
            i,
            section((x) => ({ ...x, frequency: clamp(x.frequency * 2 ** (0.4 * by), low, high) })),
          );
          attempt(
            i,
            section((x) => ({ ...x, q: clamp(x.q * 2 ** by, 0.7, 10) })),
          );
        }
      }
    }
    if (!moved) step /= 2;
  }
  return now;
}

/** In steps that a processor takes, delays from the earliest, sections that do nothing left out. */
function tidy(settings: SubSetting[]): SubSetting[] {
  const earliest = Math.min(...settings.map((s) => s.delayS));
  const loudest = Math.max(...settings.map((s) => s.gainDb));
  return settings.map((s) => ({
    gainDb: inSteps(s.gainDb - loudest, 0.1),
    delayS: inSteps(s.delayS - earliest, 1e-5),
    inverted: s.inverted,
    sections: s.sections
      .map((x) => ({
        ...x,
        frequency: inSteps(x.frequency, 0.1),
        gainDb: inSteps(x.gainDb, 0.1),
        q: inSteps(x.q, 0.01),
      }))
      .filter((x) => x.gainDb !== 0)
      .sort((a, b) => a.frequency - b.frequency),
  }));
}
