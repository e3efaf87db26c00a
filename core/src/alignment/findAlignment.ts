import QuickLRU from 'quick-lru';
import { needWithin, needWhole } from '../limits/index.js';
import { allPassTurn, allPassTurns, type AllPassSection } from '../path/index.js';
import { delayTurns, inSteps, PhaseTables, type AlignPoint } from './phaseTables.js';

/** A way to bring a source to another one. */
export interface Alignment {
  /** of the moved source against the reference, seconds; below 0 the reference waits instead */
  delayS: number;
  inverted: boolean;
  allPasses: AllPassSection[];
  /** sum efficiency, mean over the points by their weights, 0 to 1 */
  efficiency: number;
  /** the same at the worst point that counts for anything */
  worst: number;
  /** at each point; NaN where the two share nothing */
  atPoints: Float64Array;
  /** whether it lies less than half a period of the band's middle from the end of what was searched: a better one may lie beyond it */
  atEdge: boolean;
}

export type AlignAim = 'mean' | 'worst';
type Setting = Pick<Alignment, 'delayS' | 'inverted' | 'allPasses'>;

export interface AlignRequest {
  /** one or more, all on the same frequencies */
  points: readonly AlignPoint[];
  /** delays are searched as far to either side, seconds: as far as the place is large */
  mostDelayS: number;
  /** how many all-pass sections the processor has to give, 0 to 2 */
  mostAllPasses: number;
  aim: AlignAim;
}

/** Results that are this near, dB of the sum, are alike: less delay counts then. */
const ALIKE_DB = 0.05;
/** Steps to a period of the highest frequency that counts: no cycle can be missed between them. */
const STEPS_PER_PERIOD = 8;
const ALL_PASS_PER_OCTAVE = 3;
const ALL_PASS_QS = [null, 0.5, 0.8, 1.3, 2.2] as const;
const ALL_PASS_Q = { least: 0.3, most: 6 };
/** All-pass sections so far beyond the band do nothing that a delay does not. */
const BESIDE_OCTAVES = 1;
const WIDE_OCTAVES = 4;
/** So many beginnings are told from the others quickly, and so many of them refined; the best of those counts. */
const ROUGH = { mean: 60, worst: 400 };
const BEGINNINGS = 6;
/** With one length of steps one goes so far at most. */
const MOST_ROUNDS = 8;
const LEAST_GAIN = 1e-7;
/** Delays are told to this, seconds. */
const FINEST_S = 2e-7;

/** A beginning before it is refined. */
interface Rough {
  delayS: number;
  inverted: boolean;
  allPasses: AllPassSection[];
  quick: number;
}

/**
 * The best way to bring a source to another one, for each number of all-pass sections from none on: delay and polarity over a grid that
 * cannot miss the best cycle, sections over a grid of frequency and Q, the best beginnings refined.
 * @returns one for none, one, two sections, as far as they are allowed and of use (see `isWide`), the same as before where they gain nothing; empty where the two share nothing
 * @throws RangeError for no point, or a range that is not above 0
 */
export function findAlignments(request: AlignRequest): Alignment[] {
  const { points, mostDelayS, mostAllPasses } = request;
  needWithin('findAlignments', 'largest delay in s', mostDelayS, 1e-5, 10);
  needWhole('findAlignments', 'number of all-pass sections', mostAllPasses, 0, 2);
  if (points.length === 0) throw new RangeError('findAlignments: there is no point');
  const tables = tablesOf(points);
  if (!tables.band) return [];
  const { band } = tables;
  const step = 1 / (STEPS_PER_PERIOD * band.to);
  const count = Math.ceil(mostDelayS / step);
  const delays = Float64Array.from({ length: 2 * count + 1 }, (_, i) =>
    Math.max(-mostDelayS, Math.min(mostDelayS, (i - count) * step)),
  );
  const found: Alignment[] = [];
  const singles = sectionsOver(band);
  for (let n = 0; n <= (isWide(band) ? 0 : mostAllPasses); n++) {
    const sets =
      n === 0
        ? [[]]
        : n === 1
          ? singles.map((s) => [s])
          : singles.flatMap((s, i) => singles.slice(i).map((t) => [s, t]));
    const refined = roughly(tables, sets, delays, request).map((b) => refinedFrom(tables, b, request));
    const best = refined.reduce((one, other) => (isBetter(other, one, request.aim) ? other : one));
    // sections that make nothing better are not asked for
    const fewer = found.at(-1);
    found.push(fewer && worth(fewer, request.aim) >= worth(best, request.aim) ? fewer : best);
  }
  return found;
}

/**
 * Whether two share so much that only their time counts: over more than four octaves a section turns a part of them at most, and any other
 * delay than the best one loses the rest.
 */
export const isWide = ({ from, to }: { from: number; to: number }): boolean => to > 2 ** WIDE_OCTAVES * from;

/** The band that two sources share over some points, Hz; null where they share nothing. */
export const sharedBandOf = (points: readonly AlignPoint[]) => tablesOf(points).band;

/** How well two sources add up as they are set. @returns null where they share nothing */
export function alignmentAt(points: readonly AlignPoint[], setting: Setting): Alignment | null {
  const tables = tablesOf(points);
  return tables.band && evaluated(tables, setting, Infinity);
}

const known = new WeakMap<readonly AlignPoint[], PhaseTables>();
/** Made once for a list of points, which does not change: they take longer than what is read from them. */
function tablesOf(points: readonly AlignPoint[]): PhaseTables {
  const tables = known.get(points) ?? new PhaseTables(points);
  known.set(points, tables);
  return tables;
}

const sectionsOver = ({ from, to }: { from: number; to: number }): AllPassSection[] => {
  const [low, high] = [Math.log2(from) - BESIDE_OCTAVES, Math.log2(to) + BESIDE_OCTAVES];
  const count = Math.max(1, Math.round((high - low) * ALL_PASS_PER_OCTAVE));
  return Array.from({ length: count + 1 }, (_, i) => 2 ** (low + ((high - low) * i) / count)).flatMap((hz) =>
    ALL_PASS_QS.map((q) => ({ hz, q })),
  );
};

/** The most promising beginnings, each in a cycle or with sections of its own. */
function roughly(
  tables: PhaseTables,
  sets: readonly AllPassSection[][],
  delays: Float64Array,
  { mostDelayS, aim }: AlignRequest,
): Alignment[] {
  const key = `${mostDelayS} ${sets.length}`;
  const kept = quickest.get(tables) ?? new Map<string, Rough[]>();
  quickest.set(tables, kept);
  const best = kept.get(key) ?? tellQuickly(tables, sets, delays);
  kept.set(key, best);
  return best
    .slice(0, ROUGH[aim])
    .map((b) => evaluated(tables, b, mostDelayS))
    .sort((a, b) => worth(b, aim) - worth(a, aim))
    .slice(0, BEGINNINGS);
}

/** Whatever is sought, they are told from the others in the same way: once for each list of points, by the delays and sections tried. */
const quickest = new WeakMap<PhaseTables, Map<string, Rough[]>>();

/** The best of all delays, polarities and sections by the table alone, the best first. */
function tellQuickly(tables: PhaseTables, sets: readonly AllPassSection[][], delays: Float64Array): Rough[] {
  const { frequency } = tables;
  const turns = delayTurns(frequency, delays);
  // both polarities of every delay, one after the other
  const values = new Float64Array(2 * delays.length);
  const most = Math.max(...Object.values(ROUGH));
  const best: Rough[] = [];
  for (const allPasses of sets) {
    const own = allPassTurns(allPasses, frequency);
    tables.quick(turns, inSteps(own), values.subarray(0, delays.length));
    tables.quick(turns, inSteps(own.map((turn) => turn + Math.PI)), values.subarray(delays.length));
    for (let i = 0; i < values.length; i++) {
      const quick = values[i]!;
      if (best.length === most && quick <= best[most - 1]!.quick) continue;
      // the top of a cycle
      const at = i % delays.length;
      if (at > 0 && quick < values[i - 1]!) continue;
      if (at < delays.length - 1 && quick < values[i + 1]!) continue;
      const place = best.findIndex((b) => b.quick < quick);
      const rough = { delayS: delays[at]!, inverted: i >= delays.length, allPasses, quick };
      best.splice(place < 0 ? best.length : place, 0, rough);
      best.length = Math.min(best.length, most);
    }
  }
  return best;
}

function evaluated(
  tables: PhaseTables,
  { delayS, inverted, allPasses }: Setting,
  mostDelayS: number,
): Alignment {
  const turn = tables.frequency.map(
    (f) =>
      (inverted ? Math.PI : 0) -
      2 * Math.PI * f * delayS +
      allPasses.reduce((sum, s) => sum + allPassTurn(s, f), 0),
  );
  const atPoints = tables.atPoints(turn);
  return {
    delayS,
    inverted,
    allPasses,
    efficiency: tables.mean(atPoints),
    worst: tables.worst(atPoints),
    atPoints,
    atEdge: Math.abs(delayS) > mostDelayS - 0.5 / Math.sqrt(tables.band!.from * tables.band!.to),
  };
}

/** The same of a turn. */
function worthAt(tables: PhaseTables, turn: Float64Array, aim: AlignAim): number {
  const atPoints = tables.atPoints(turn);
  return worth({ efficiency: tables.mean(atPoints), worst: tables.worst(atPoints) }, aim);
}

/** What is sought, as a number that should be large. The mean decides among those whose worst is alike. */
const worth = ({ efficiency, worst }: Pick<Alignment, 'efficiency' | 'worst'>, aim: AlignAim): number =>
  aim === 'mean' ? efficiency : worst + 0.01 * efficiency;

/** How a setting is judged while it is refined. */
type Judge = (setting: Setting) => number;

/** Sections are kept as they turn: most neighbours of a setting have most of its sections. */
function turnsOf({ frequency }: PhaseTables): (setting: Setting) => Float64Array {
  const known = new QuickLRU<string, Float64Array>({ maxSize: 64 });
  const turnOf = (section: AllPassSection) => {
    const key = `${section.hz} ${section.q}`;
    const turn = known.get(key) ?? frequency.map((f) => allPassTurn(section, f));
    known.set(key, turn);
    return turn;
  };
  return ({ delayS, inverted, allPasses }) => {
    const flip = inverted ? Math.PI : 0;
    const turn = frequency.map((f) => flip - 2 * Math.PI * f * delayS);
    for (const section of allPasses) turnOf(section).forEach((t, k) => (turn[k] = turn[k]! + t));
    return turn;
  };
}

/** The best of a beginning: of a mean first by its table, which costs the same however many points there are, then exactly. */
function refinedFrom(tables: PhaseTables, from: Alignment, { mostDelayS, aim }: AlignRequest): Alignment {
  const turns = turnsOf(tables);
  const exactly: Judge = (setting) => worthAt(tables, turns(setting), aim);
  const first = 1 / (2 * STEPS_PER_PERIOD * tables.band!.to);
  const ratio = 2 ** (1 / (2 * ALL_PASS_PER_OCTAVE));
  const best =
    aim === 'mean'
      ? climbed(
          climbed(from, (s) => tables.near(turns(s)), first, ratio, mostDelayS),
          exactly,
          first / 16,
          ratio ** (1 / 16),
          mostDelayS,
        )
      : climbed(from, exactly, first, ratio, mostDelayS);
  return evaluated(tables, best, mostDelayS);
}

/** Steps of each figure, ever smaller: what makes it better is taken. */
function climbed(
  from: Setting,
  judge: Judge,
  firstStepS: number,
  firstRatio: number,
  mostDelayS: number,
): Setting {
  let [best, worthOfBest] = [from, judge(from)];
  let [delayStep, ratio] = [firstStepS, firstRatio];
  while (delayStep > FINEST_S) {
    let isBetterNow = true;
    for (let round = 0; isBetterNow && round < MOST_ROUNDS; round++) {
      isBetterNow = false;
      for (const next of neighbours(best, delayStep, ratio, mostDelayS)) {
        const worthOfNext = judge(next);
        if (worthOfNext > worthOfBest + LEAST_GAIN) {
          [best, worthOfBest] = [next, worthOfNext];
          isBetterNow = true;
        }
      }
    }
    delayStep /= 2;
    ratio = Math.sqrt(ratio);
  }
  return best;
}

function neighbours(
  { delayS, inverted, allPasses }: Setting,
  delayStep: number,
  ratio: number,
  mostDelayS: number,
): Setting[] {
  const within = (s: number) => Math.max(-mostDelayS, Math.min(mostDelayS, s));
  const q = (value: number) => Math.max(ALL_PASS_Q.least, Math.min(ALL_PASS_Q.most, value));
  const withSection = (i: number, change: (s: AllPassSection) => AllPassSection, delay = delayS) => ({
    delayS: within(delay),
    inverted,
    allPasses: allPasses.map((s, j) => (i === j ? change(s) : s)),
  });
  return [
    { delayS: within(delayS + delayStep), inverted, allPasses },
    { delayS: within(delayS - delayStep), inverted, allPasses },
    ...allPasses.flatMap((_, i) =>
      [ratio, 1 / ratio].flatMap((by) => [
        // a section that moves takes its delay with it
        ...[-delayStep, 0, delayStep].map((d) =>
          withSection(i, (s) => ({ ...s, hz: s.hz * by }), delayS + d),
        ),
        ...(allPasses[i]!.q === null
          ? []
          : [-delayStep, 0, delayStep].map((d) =>
              withSection(i, (s) => ({ ...s, q: q(s.q! * by) }), delayS + d),
            )),
      ]),
    ),
  ];
}

function isBetter(a: Alignment, b: Alignment, aim: AlignAim): boolean {
  const apartDb = 20 * Math.log10(worth(a, aim) / worth(b, aim));
  if (Math.abs(apartDb) > ALIKE_DB) return apartDb > 0;
  return Math.abs(a.delayS) < Math.abs(b.delayS) - FINEST_S;
}
