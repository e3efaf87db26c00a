import type { Point } from '@pebble-hall/core/geometry';
import { gainOfDb } from '@pebble-hall/core/signal';
import type { SimulatedLoudspeaker } from './simulatedPlace.js';

/** The level calibrator Lantern 94/114, put on the microphone. */
export interface Calibrator {
  levelDb: 94 | 114;
  trouble: null | 'unsteady' | 'wrong tone' | 'hand';
}

/** What can go wrong with the rig, for tests and for practice. */
export interface Faults {
  /** a door slams during the next sweep; told back once it has */
  doorSlam: boolean;
  /** outputs that carry nothing, from 1 */
  silentOutputs: number[];
  /** outputs wired the wrong way round */
  reversedOutputs: number[];
  /** the microphone input's gain is far too high */
  hotInput: boolean;
  /** hum at 50 Hz and its multiples */
  hum: boolean;
  /** the cables of two outputs are exchanged */
  swappedOutputs: [number, number] | null;
  /** the second subwoofer hangs on the output of the first as well, and nothing on its own */
  sharedOutput: boolean;
  /** outputs whose loudspeaker buzzes */
  tornOutputs: number[];
  /** the loopback cable is pulled out */
  loopbackOut: boolean;
  /** loudspeakers, by id, whose cable is pulled out for the moment */
  unplugged: string[];
  /** the gain knob on a loudspeaker, by id */
  ownGainDb: Record<string, number>;
  /** what is put on the microphone */
  calibrator: Calibrator | null;
  /** somebody knocks the microphone's stand */
  nudge: Nudge | null;
  /** what goes on in the place beside the measurement */
  sounds: RoomSound[];
}

/** People who talk, a bar that is set up, a fan over the stage, a train that passes every minute. */
export const ROOM_SOUNDS = ['audience', 'bar', 'fan', 'train'] as const;
export type RoomSound = (typeof ROOM_SOUNDS)[number];

/** A stand that is knocked: after so many sweeps, by so much; until it is put up somewhere else. */
export interface Nudge {
  afterTakes: number;
  byM: number;
  /** where it stood when it was knocked; null before */
  at: string | null;
}

/**
 * The next sweep of a rig whose stand is to be knocked.
 * @param standsAt names the place where the stand was put up
 * @returns what is still to come, and how far the microphone is off its place now, metres
 */
export function stepNudge(nudge: Nudge, standsAt: string): { nudge: Nudge | null; offset: Point } {
  const still = { x: 0, y: 0, z: 0 };
  if (nudge.at === null && nudge.afterTakes > 0)
    return { nudge: { ...nudge, afterTakes: nudge.afterTakes - 1 }, offset: still };
  if (nudge.at !== null && nudge.at !== standsAt) return { nudge: null, offset: still };
  return { nudge: { ...nudge, at: standsAt }, offset: { x: 0.8 * nudge.byM, y: 0.6 * nudge.byM, z: 0 } };
}

export const noFaults = (): Faults => ({
  doorSlam: false,
  silentOutputs: [],
  reversedOutputs: [],
  hotInput: false,
  hum: false,
  swappedOutputs: null,
  sharedOutput: false,
  tornOutputs: [],
  loopbackOut: false,
  unplugged: [],
  ownGainDb: {},
  calibrator: null,
  nudge: null,
  sounds: [],
});

const HOT_DB = 40;
export const inputGainDb = (gainDb: number, { hotInput }: Pick<Faults, 'hotInput'>): number =>
  gainDb + (hotInput ? HOT_DB : 0);

/** The loudspeakers that an output really reaches, and the gain, sign included, with which it does. */
export function feedsOf(
  output: number,
  faults: Faults,
  loudspeakers: readonly SimulatedLoudspeaker[],
): { loudspeaker: SimulatedLoudspeaker; gain: number }[] {
  if (faults.silentOutputs.includes(output)) return [];
  const swap = faults.swappedOutputs;
  const wired = swap && swap.includes(output) ? swap[0] + swap[1] - output : output;
  const sign = faults.reversedOutputs.includes(output) ? -1 : 1;
  const [first, second] = loudspeakers.filter((l) => l.role === 'subwoofer');
  const outputOf = (l: SimulatedLoudspeaker) =>
    faults.sharedOutput && l === second ? first!.output : l.output;
  return loudspeakers
    .filter((l) => outputOf(l) === wired && !faults.unplugged.includes(l.id))
    .map((loudspeaker) => ({ loudspeaker, gain: sign * gainOfDb(faults.ownGainDb[loudspeaker.id] ?? 0) }));
}

const RATE = 48000;
const turn = (frequency: number, frame: number) =>
  Math.sin((2 * Math.PI * ((frequency * frame) % RATE)) / RATE);

/** Hum of the mains, full scale = 1. */
export function humOf(length: number, fromFrame: number): Float64Array {
  const lines = [
    [50, -50],
    [100, -56],
    [150, -60],
    [250, -66],
  ] as const;
  return Float64Array.from({ length }, (_, i) =>
    lines.reduce((sum, [f, db]) => sum + Math.SQRT2 * gainOfDb(db) * turn(f, fromFrame + i), 0),
  );
}

/** Full scale (RMS 1) of a Siskin M1 at no gain is 120 dB of sound pressure, so 94 dB reads -26 dB; the 114 dB of this Lantern are 0.07 dB short. */
const LANTERN_DB = { 94: -26, 114: -6.07 } as const;

/** What the calibrator makes at the microphone, from a frame on. */
export function calibratorTone(
  { levelDb, trouble }: Calibrator,
  fromFrame: number,
  length: number,
): Float64Array {
  const frequency = trouble === 'wrong tone' ? 250 : 1000;
  const amplitude = Math.SQRT2 * gainOfDb(LANTERN_DB[levelDb]);
  return Float64Array.from({ length }, (_, i) => {
    const frame = fromFrame + i;
    const seat = trouble === 'unsteady' ? gainOfDb(0.6 * turn(1, Math.floor(0.7 * frame))) : 1;
    // a hand on the microphone: low rumble, nearly as loud as the tone
    const hand = trouble === 'hand' ? 0.25 * amplitude * (turn(17, frame) + turn(43, frame)) : 0;
    return amplitude * seat * turn(frequency, frame) + hand;
  });
}
