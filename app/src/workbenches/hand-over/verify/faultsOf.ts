import { LIMIT_DB, LOUD_ENOUGH_DB, UNCLEAR, type Loudspeaker, type Sweep } from '@pebble-hall/core/project';
import { reasonSentence } from '../../../words/sweepReasons';
import { MOVED_S, type Verified } from './missReasons';

/** A channel that was measured again, beside how it was found. */
export interface MeasuredAgain extends Pick<Verified, 'laterS' | 'othersArrive' | 'arrivesLike'> {
  role: Loudspeaker['role'];
  found: Pick<Sweep, 'polarity' | 'distortionDb'> | null;
  verified: Pick<Sweep, 'polarity' | 'distortionDb' | 'verdict' | 'stage'>;
  /** whether what was loaded inverts it against how it was found */
  isInverted: boolean;
  /** whether its level is as predicted; where it is not, its arrival is among the reasons for that */
  levelAgrees: boolean;
}

/** Polarity through a correction is held to be known where both sweeps are this sure of it. */
const SURE = UNCLEAR + 0.1;
/** A loudspeaker that was driven harder by its correction distorts somewhat more. */
const MORE_DB = 6;

/**
 * What is wrong with a channel however near its level comes to what was predicted, by the checks of the Rig: inverted,
 * exchanged with another, distorting as it did not before, or measured with a disturbance. Nothing where it is sound.
 */
export function faultsOf(m: MeasuredAgain): string[] {
  const out: string[] = [];
  const { found, verified, role } = m;
  const [was, is] = [found?.polarity, verified.polarity];
  // with its bass a channel is the sum of two loudspeakers, whose polarity is no single one
  if (verified.stage === 'verified' && was && is && was.certainty > SURE && is.certainty > SURE)
    if ((was.reversed !== is.reversed) !== m.isInverted)
      out.push(
        'polarity is inverted against what was loaded: exchange + and − at the loudspeaker or its plug',
      );
  const { distortionDb, verdict } = verified;
  const before = found?.distortionDb ?? -Infinity;
  if (
    distortionDb !== null &&
    distortionDb > Math.max(LIMIT_DB[role], before + MORE_DB) &&
    verdict.snrDb > LOUD_ENOUGH_DB
  )
    out.push(
      `it distorts by ${percent(distortionDb)} % (${percent(before)} % as found): lower the level, then listen for a buzz`,
    );
  // what distorts is heard as a disturbance, too
  else
    for (const reason of verdict.reasons)
      if (reason.kind !== 'near noise' && reason.kind !== 'silent') out.push(reasonSentence(reason));
  if (
    m.levelAgrees &&
    m.laterS !== null &&
    Math.abs(m.laterS) > MOVED_S[role] &&
    m.othersArrive &&
    m.arrivesLike
  )
    out.push(
      `it arrives as ${m.arrivesLike} would, and the others as expected: the two are probably exchanged`,
    );
  return out;
}

const percent = (db: number): string => (100 * 10 ** (db / 20)).toFixed(db > -40 ? 0 : 1);
