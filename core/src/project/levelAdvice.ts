import { AIM_DB, weakestBand } from '../measure/index.js';
import { fittedOf } from './progress.js';
import type { Project } from './types.js';

export const LOWEST_DBFS = -60;
/** Played more softly than this, a channel that is not heard may still be there. */
export const TELLING_DBFS = -40;
/** Room for boosts of a correction, and for a room that adds up. */
export const HIGHEST_DBFS = -10;
/** The suggestion leaves this over the aim: other spots have dips of their own, and a filter may cut. */
export const SPARE_DB = 14;
/** More than this over the aim is louder than it need be. */
const PLENTY_DB = 25;
/** An input that has clipped gets at least this much less. */
const OFF_CLIPPING_DB = 10;

/** The third octave that stands least above the noise, over all fitted channels that were checked. */
export interface WeakestPlace {
  name: string;
  /** Hz */
  centre: number;
  /** at the level that is set now, dB */
  snrDb: number;
}

export interface LevelAdvice {
  weakest: WeakestPlace;
  suggestedDbfs: number;
  /** a channel whose input clipped when it was checked; nothing louder than that is suggested */
  clipped: { name: string; levelDbfs: number } | null;
}

/**
 * The test level that brings the weakest third octave of any channel to the aim, with some to spare; as it is where it does
 * already. Never near a level at which an input has clipped.
 * @returns null while no channel was checked
 */
export function levelAdvice(project: Pick<Project, 'place' | 'rig'>): LevelAdvice | null {
  const { checks, levelDbfs } = project.rig;
  let weakest: WeakestPlace | null = null;
  let clipped: LevelAdvice['clipped'] = null;
  for (const { id, name } of fittedOf(project)) {
    const check = checks[id];
    if (!check) continue;
    if (
      check.verdict.reasons.some((r) => r.kind === 'clipped') &&
      check.levelDbfs < (clipped?.levelDbfs ?? 1)
    )
      clipped = { name, levelDbfs: check.levelDbfs };
    const band = weakestBand(check.margins, check.verdict.band);
    if (!band || !Number.isFinite(band.snrDb)) continue;
    const snrDb = band.snrDb + levelDbfs - check.levelDbfs;
    if (!weakest || snrDb < weakest.snrDb) weakest = { name, centre: band.centre, snrDb };
  }
  if (!weakest) return null;
  const highest = clipped ? Math.min(HIGHEST_DBFS, clipped.levelDbfs - OFF_CLIPPING_DB) : HIGHEST_DBFS;
  const isRight =
    weakest.snrDb >= AIM_DB + SPARE_DB - 1 && weakest.snrDb <= AIM_DB + PLENTY_DB && levelDbfs <= highest;
  const wanted = Math.ceil(levelDbfs + AIM_DB + SPARE_DB - weakest.snrDb);
  return {
    weakest,
    suggestedDbfs: isRight ? levelDbfs : Math.max(LOWEST_DBFS, Math.min(highest, wanted)),
    clipped: clipped && levelDbfs > highest ? clipped : null,
  };
}
