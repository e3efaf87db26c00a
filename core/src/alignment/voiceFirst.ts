import { needFinite, needNumber, needWithin } from '../limits/index.js';
import { LEADS_DB } from './precedence.js';

/**
 * By how much what comes later may be louder than a voice that still is heard from where it is: none of it may be near its level within the first
 * millisecond, where the ear hears one sound from between the two; from 5 to 30 ms it may be 10 dB louder (Haas 1951), and
 * straight in between; after that it becomes an echo, which disturbs nobody if it is 10 dB softer (Haas 1951), straight in
 * between up to 80 ms.
 */
export const VOICE_BOUND = [
  { laterS: 0.001, louderDb: 0 },
  { laterS: 0.005, louderDb: LEADS_DB },
  { laterS: 0.03, louderDb: LEADS_DB },
  { laterS: 0.08, louderDb: -LEADS_DB },
] as const;

/** The bound at a delay, dB. */
export function voiceBoundDb(laterS: number): number {
  needNumber('voiceBoundDb', 'delay in s', laterS);
  const [first] = VOICE_BOUND;
  if (laterS < first.laterS) return -LEADS_DB;
  for (let i = 1; i < VOICE_BOUND.length; i++) {
    const [a, b] = [VOICE_BOUND[i - 1]!, VOICE_BOUND[i]!];
    if (laterS <= b.laterS)
      return a.louderDb + ((laterS - a.laterS) / (b.laterS - a.laterS)) * (b.louderDb - a.louderDb);
  }
  return -LEADS_DB;
}

/** A voice and the loudspeakers that help it, as they are heard at seats. */
export interface VoiceAtSeats {
  /** of the voice: level, dB, and when it arrives, seconds */
  voiceDb: Float64Array;
  voiceS: Float64Array;
  /** of each loudspeaker the same, as it is set now; -Infinity where it is silent */
  levelDb: Float64Array[];
  arriveS: Float64Array[];
  /** seats near the talker, where the voice need not lead */
  isNear: readonly boolean[];
}

/** What a loudspeaker gets on top of what it is set to. */
export interface VoiceHelp {
  gainDb: number;
  delayS: number;
  /** the seat where it counts most: its sound is measured there */
  seat: number;
}

/** How a seat hears voice and loudspeakers. */
export interface VoiceAtSeat {
  /** the loudspeaker that is loudest there; -1 for none */
  by: number;
  /** when it comes after the voice, seconds */
  laterS: number;
  /** how much louder all loudspeakers together are than the voice, dB */
  louderDb: number;
  verdict: 'the voice' | 'a loudspeaker' | 'an echo' | 'near';
}

/** Loudspeakers that are softer than the voice by more do not matter for who is heard, dB. */
const COUNTS_DB = -LEADS_DB;
/** Rounds in which what is too loud is taken back. */
const ROUNDS = 200;
/** Nobody hears by how much less than this a level is beyond the bound, dB. */
const TOLERANCE_DB = 0.05;

const power = (db: number) => 10 ** (db / 10);

/** Who is heard at each seat. @param help of each loudspeaker */
export function heardFirst(
  { voiceDb, voiceS, levelDb, arriveS, isNear }: VoiceAtSeats,
  help: readonly Pick<VoiceHelp, 'gainDb' | 'delayS'>[],
): VoiceAtSeat[] {
  return Array.from(voiceDb, (voice, p) => {
    let [sum, by, most] = [0, -1, -Infinity];
    let worst: { laterS: number; over: number } | null = null;
    help.forEach(({ gainDb, delayS }, i) => {
      const db = levelDb[i]![p]! + gainDb;
      if (db === -Infinity) return;
      sum += power(db);
      if (db > most) [most, by] = [db, i];
      const laterS = arriveS[i]![p]! + delayS - voiceS[p]!;
      // what is soft beside the voice pulls nobody
      const over = db - voice < COUNTS_DB ? -Infinity : db - voice - voiceBoundDb(laterS);
      if (!worst || over > worst.over) worst = { laterS, over };
    });
    const laterS = by < 0 ? 0 : arriveS[by]![p]! + help[by]!.delayS - voiceS[p]!;
    const louderDb = sum > 0 ? 10 * Math.log10(sum) - voice : -Infinity;
    const all = louderDb - voiceBoundDb(laterS);
    const found = worst as { laterS: number; over: number } | null;
    const bad =
      found && found.over > TOLERANCE_DB
        ? found.laterS
        : louderDb >= COUNTS_DB && all > TOLERANCE_DB
          ? laterS
          : null;
    return {
      by,
      laterS,
      louderDb,
      verdict: isNear[p]
        ? 'near'
        : bad === null
          ? 'the voice'
          : bad > VOICE_BOUND[2].laterS
            ? 'an echo'
            : 'a loudspeaker',
    };
  });
}

export interface VoiceWish {
  /** loudspeakers come so much later than the voice at the seat of theirs where they come soonest, seconds */
  leadS: number;
  /** where they count most loudspeakers are so much louder than the voice, all together, dB: nowhere more, and less where a seat would lose the voice */
  louderDb: number;
}

/**
 * Gain and delay for each loudspeaker so that the talker is the one who is heard from at all seats that are not near: delays that let
 * the voice lead at every seat where the loudspeaker counts; then levels, as loud as wished at the seat where each counts most, and
 * taken back where all together would be louder than that, or go beyond the bound.
 * @throws RangeError for levels and times that are none, or as many of one as there are not of the other
 */
export function proposeVoiceFirst(at: VoiceAtSeats, { leadS, louderDb }: VoiceWish): VoiceHelp[] {
  const { voiceDb, voiceS, levelDb, arriveS, isNear } = at;
  const seats = voiceDb.length;
  needFinite('proposeVoiceFirst', 'level of the voice', voiceDb);
  needFinite('proposeVoiceFirst', 'arrival of the voice', voiceS);
  needWithin('proposeVoiceFirst', 'lead in s', leadS, 0.001, 0.03);
  needWithin('proposeVoiceFirst', 'how much louder in dB', louderDb, -40, LEADS_DB);
  needWithin('proposeVoiceFirst', 'number of seats', isNear.length, Math.max(1, seats), seats);
  const far = [...isNear.keys()].filter((p) => !isNear[p]);
  const help = levelDb.map((own, i): VoiceHelp => {
    const arrive = arriveS[i]!;
    const heard = far.filter((p) => own[p]! > -Infinity);
    // its share: seats where it is louder than the other ones, against the voice
    const share = heard.filter((p) => levelDb.every((other) => other[p]! <= own[p]!));
    const among = share.length > 0 ? share : heard;
    if (among.length === 0) return { gainDb: 0, delayS: 0, seat: 0 };
    const seat = among.reduce((best, p) => (own[p]! - voiceDb[p]! > own[best]! - voiceDb[best]! ? p : best));
    const gainDb = louderDb - (own[seat]! - voiceDb[seat]!);
    // wherever it counts it comes after the voice, which cannot wait
    const counts = heard.filter((p) => own[p]! + gainDb - voiceDb[p]! >= COUNTS_DB);
    const delayS = Math.max(0, ...counts.map((p) => voiceS[p]! + leadS - arrive[p]!));
    return { gainDb, delayS, seat };
  });
  for (let round = 0; round < ROUNDS; round++) {
    let worst = 0;
    const cut = help.map(() => 0);
    for (const p of far) {
      const levels = help.map((h, i) => levelDb[i]![p]! + h.gainDb - voiceDb[p]!);
      const sum = 10 * Math.log10(levels.reduce((s, db) => s + power(db), 0));
      const loudest = levels.reduce((best, db, i) => (db > levels[best]! ? i : best), 0);
      levels.forEach((db, i) => {
        const laterS = arriveS[i]![p]! + help[i]!.delayS - voiceS[p]!;
        const bound = Math.min(louderDb, voiceBoundDb(laterS));
        // one alone, and the loudest for all together
        const over = db < COUNTS_DB ? 0 : Math.max(db, i === loudest ? sum : db) - bound;
        if (over > cut[i]!) cut[i] = over;
      });
    }
    help.forEach((h, i) => {
      h.gainDb -= cut[i]!;
      worst = Math.max(worst, cut[i]!);
    });
    if (worst < TOLERANCE_DB / 10) break;
  }
  return help;
}
