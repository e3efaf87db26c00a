import type { Shape } from '@pebble-hall/core/shapes';
import { gainOfDb, seededRandom, seedFrom } from '@pebble-hall/core/signal';
import { FADER_OFF_DB, knobValue, TIDEPOOL, type Knobs } from './knobs.js';

/** A channel as it really is, with the tolerances of its parts. */
export interface MixerChannel {
  /** of its input stage, as a factor */
  gain: number;
  /** circuits behind the input stage */
  shapes: Shape[];
  /** from behind them to the two outputs, as factors; 0 for nothing */
  left: number;
  right: number;
}

/** The quality of the middle, which is not printed. */
const MIDDLE_Q = 0.9;
/** Coupling capacitors at either end of a channel. */
const COUPLING_HZ = 6;

/** All channels as their knobs stand. @param seed of the tolerances: another one is another mixer of the same kind */
export function tidepoolChannels(knobs: Knobs, seed = 6): MixerChannel[] {
  return Array.from({ length: TIDEPOOL.channels }, (_, i) => channelOf(knobs, i + 1, seed));
}

function channelOf(knobs: Knobs, channel: number, seed: number): MixerChannel {
  const random = seededRandom(seedFrom(seed, `channel ${channel}`));
  /** parts of so many percent, one in three beyond it, none beyond three times */
  const part = (percent: number) => 1 + (percent / 100) * Math.max(-3, Math.min(3, random.normal()));
  const at = (name: Parameters<typeof knobValue>[2]) => knobValue(knobs, channel, name);
  const trim = 0.25 * random.normal();
  const [lowHz, lowGain] = [100 * part(4), part(3)];
  const [middleHz, middleGain, middleQ] = [part(5), part(3), MIDDLE_Q * part(6)];
  const [highHz, highGain] = [10_000 * part(4), part(3)];
  const faderDb = at('fader');
  const fader = faderDb <= FADER_OFF_DB ? 0 : gainOfDb(faderDb + 0.15 * random.normal());
  // the two tracks of a pan pot are not quite alike; they meet at -3 dB
  const turn = ((at('pan') + 1) * Math.PI) / 4;
  const apart = gainOfDb(0.1 * random.normal());
  return {
    gain: gainOfDb(at('trim') + trim),
    shapes: [
      { kind: 'high-pass', hz: COUPLING_HZ * part(10), family: 'Butterworth', order: 1 },
      { kind: 'low shelf', hz: lowHz, gainDb: at('low') * lowGain, order: 1, q: null },
      { kind: 'peaking', hz: at('sweep') * middleHz, gainDb: at('mid') * middleGain, q: middleQ },
      { kind: 'high shelf', hz: highHz, gainDb: at('high') * highGain, order: 1, q: null },
    ],
    left: near0(Math.cos(turn)) * fader,
    right: near0(Math.sin(turn)) * fader * apart,
  };
}

/** A pan pot at its end lets a little through to the other side, 70 dB down. */
const near0 = (v: number): number => Math.max(v, 10 ** (-70 / 20));
