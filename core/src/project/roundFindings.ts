import { findMisfits, type NoiseTrait, type PlannedChannel } from '../commissioning/index.js';
import { LIMIT_DB, LOUD_ENOUGH_DB, POLARITY_SNR_DB, UNCLEAR } from './channelLimits.js';
import { fittedOf, sweepOf } from './progress.js';
import { travelS } from './travel.js';
import type { Loudspeaker, Project, Spot, Sweep } from './types.js';

/** What the sweeps of a round tell of a channel, as a check in the Rig does of one. */
export type RoundFault =
  | { kind: 'reversed' }
  /** arrives or plays as another channel would, by name; none where it fits no other's place */
  | { kind: 'misfit'; wrongBand: boolean; lateS: number; couldBe: string[] }
  | { kind: 'distorted'; percent: number; limitPercent: number }
  /** not heard at any spot */
  | { kind: 'silent' }
  /** a noise that comes with this channel at every spot, and with the others hardly ever */
  | { kind: 'rattles' };

export interface RoundFinding {
  loudspeaker: Loudspeaker;
  fault: RoundFault;
  /** sweeps that show it */
  sweeps: Sweep[];
  /** of so many that could */
  of: number;
  /** whether the channel has it wherever it was heard: it is the channel's then, and measuring again does not help */
  isEverywhere: boolean;
}

/** A fault that this share of a channel's sweeps shows is the channel's. */
const EVERYWHERE = 0.5;
/** Below this share of disturbed sweeps among the other channels, a noise that comes with one channel is its own. */
const QUIET_OTHERS = 0.25;
/** Of one sweep it cannot be told whether it is the channel's. */
const FEWEST = 2;

/** Faults of channels that the sweeps of the round under way show, the same checks as in the Rig at every spot. */
export function roundFindings(project: Project): RoundFinding[] {
  const heard = project.place.spots.flatMap((spot) =>
    fittedOf(project).flatMap((loudspeaker) => {
      const sweep = sweepOf(project, spot.id, loudspeaker.id);
      return sweep && isHeard(sweep) ? [{ spot, loudspeaker, sweep }] : [];
    }),
  );
  const misfits = misfitsOf(project, heard);
  return fittedOf(project).flatMap((loudspeaker) => {
    const own = heard.filter((h) => h.loudspeaker === loudspeaker).map((h) => h.sweep);
    const found: RoundFinding[] = [];
    const add = (fault: RoundFault, sweeps: Sweep[], of: number) => {
      if (sweeps.length === 0) return;
      found.push({ loudspeaker, fault, sweeps, of, isEverywhere: sweeps.length > EVERYWHERE * of });
    };
    const taken = project.place.spots.flatMap((spot) => sweepOf(project, spot.id, loudspeaker.id) ?? []);
    if (taken.length >= FEWEST && taken.every(isSilent)) add({ kind: 'silent' }, taken, taken.length);
    const told = own.filter(
      (s) =>
        s.polarity && s.polarity.certainty >= UNCLEAR && s.verdict.snrDb >= POLARITY_SNR_DB[loudspeaker.role],
    );
    const reversed = told.filter((s) => s.polarity!.reversed);
    // at a single seat of several a reflection may turn it; a channel that is wired wrongly is so everywhere
    if (reversed.length > EVERYWHERE * told.length) add({ kind: 'reversed' }, reversed, told.length);
    const placed = own.filter((s) => misfits.has(s.id));
    const [first] = placed;
    if (first) add(misfits.get(first.id)!, placed, own.length);
    const limitDb = LIMIT_DB[loudspeaker.role];
    const loud = own.filter((s) => s.verdict.snrDb > LOUD_ENOUGH_DB && s.distortionDb !== null);
    const distorted = loud.filter((s) => s.distortionDb! > limitDb);
    if (distorted.length > EVERYWHERE * loud.length)
      add(
        {
          kind: 'distorted',
          percent: 100 * 10 ** (Math.max(...distorted.map((s) => s.distortionDb!)) / 20),
          limitPercent: 100 * 10 ** (limitDb / 20),
        },
        distorted,
        loud.length,
      );
    else {
      const others = heard.filter((h) => h.loudspeaker !== loudspeaker).map((h) => h.sweep);
      const noisy = own.filter(isDisturbed);
      const isOwn = others.filter(isDisturbed).length <= QUIET_OTHERS * others.length;
      if (isOwn && noisy.length >= FEWEST && noisy.length > EVERYWHERE * own.length)
        add({ kind: 'rattles' }, noisy, own.length);
    }
    return found;
  });
}

const isHeard = ({ verdict }: Sweep): boolean =>
  !verdict.reasons.some((r) => r.kind === 'silent' || r.kind === 'clipped' || r.kind === 'no loopback');

const isSilent = ({ verdict }: Sweep): boolean => verdict.reasons.some((r) => r.kind === 'silent');

const isDisturbed = ({ verdict }: Sweep): boolean => verdict.reasons.some((r) => r.kind === 'disturbed');

interface Heard {
  spot: Spot;
  loudspeaker: Loudspeaker;
  sweep: Sweep;
}

/** What of the plan does not fit, by the id of the sweep. */
function misfitsOf(project: Project, heard: Heard[]): Map<string, RoundFault & { kind: 'misfit' }> {
  const nameOf = (id: string) => fittedOf(project).find((l) => l.id === id)!.name;
  const out = new Map<string, RoundFault & { kind: 'misfit' }>();
  for (const spot of project.place.spots) {
    const here = heard.filter((h) => h.spot === spot);
    const planned = here.map(({ loudspeaker: l, sweep }): PlannedChannel => ({
      id: l.id,
      role: l.role,
      travelS: travelS(project, l, spot.position),
      delayS: project.rig.checks[l.id]?.delayS ?? 0,
      arrivalS: sweep.verdict.band ? (sweep.polarity?.arrivalS ?? null) : null,
      band: sweep.verdict.band,
    }));
    for (const { id, wrongBand, lateS, couldBe } of findMisfits(planned)) {
      // a microphone that was moved shifts all arrivals a little: what fits no other channel's place is left to that check
      if (couldBe.length === 0 && !wrongBand) continue;
      const { sweep } = here.find((h) => h.loudspeaker.id === id)!;
      out.set(sweep.id, { kind: 'misfit', wrongBand, lateS, couldBe: couldBe.map(nameOf) });
    }
  }
  return out;
}

/** Hum, tones and rumble that were heard at spots of the round under way before their sweeps; the strongest of each kind. */
export function roundNoise(project: Project): { trait: NoiseTrait; spots: Spot[] }[] {
  const found = new Map<NoiseTrait['kind'], { trait: NoiseTrait; spots: Spot[] }>();
  for (const spot of project.place.spots)
    for (const loudspeaker of fittedOf(project))
      for (const trait of sweepOf(project, spot.id, loudspeaker.id)?.noise ?? []) {
        const known = found.get(trait.kind);
        if (!known) found.set(trait.kind, { trait, spots: [spot] });
        else {
          if (trait.riseDb > known.trait.riseDb) known.trait = trait;
          if (!known.spots.includes(spot)) known.spots.push(spot);
        }
      }
  return [...found.values()];
}
