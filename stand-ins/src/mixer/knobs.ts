/** A knob as it is printed on the front. */
export interface Knob {
  /** within its channel, and in `Knobs` after the channel's number and a point */
  name: 'trim' | 'high' | 'mid' | 'sweep' | 'low' | 'pan' | 'fader';
  printed: string;
  unit: string;
  least: number;
  most: number;
  step: number;
  /** as it is delivered */
  start: number;
  /** whether equal turns are equal ratios */
  isRatio: boolean;
}

/** How knobs stand, by channel and name as in `2.mid`; those that are left out stand as they are delivered. */
export type Knobs = Record<string, number>;

/** A fader all the way down lets nothing through. */
export const FADER_OFF_DB = -60;

export const TIDEPOOL = { name: 'Tidepool 6', channels: 6 } as const;

export const TIDEPOOL_KNOBS: readonly Knob[] = [
  { name: 'trim', printed: 'Trim', unit: 'dB', least: -10, most: 30, step: 0.5, start: 0, isRatio: false },
  {
    name: 'high',
    printed: 'High, 10 kHz',
    unit: 'dB',
    least: -15,
    most: 15,
    step: 0.5,
    start: 0,
    isRatio: false,
  },
  { name: 'mid', printed: 'Middle', unit: 'dB', least: -15, most: 15, step: 0.5, start: 0, isRatio: false },
  {
    name: 'sweep',
    printed: 'Middle at',
    unit: 'Hz',
    least: 150,
    most: 6000,
    step: 10,
    start: 1000,
    isRatio: true,
  },
  {
    name: 'low',
    printed: 'Low, 100 Hz',
    unit: 'dB',
    least: -15,
    most: 15,
    step: 0.5,
    start: 0,
    isRatio: false,
  },
  { name: 'pan', printed: 'Pan', unit: '', least: -1, most: 1, step: 0.05, start: 0, isRatio: false },
  {
    name: 'fader',
    printed: 'Fader',
    unit: 'dB',
    least: FADER_OFF_DB,
    most: 10,
    step: 0.5,
    start: FADER_OFF_DB,
    isRatio: false,
  },
];

/** Delivered ready to be compared: two channels up, one to each side. */
const DELIVERED: Knobs = { '1.fader': 0, '1.pan': -1, '2.fader': 0, '2.pan': 1 };

/** How a knob stands. @param channel from 1 */
export function knobValue(knobs: Knobs, channel: number, name: Knob['name']): number {
  const key = `${channel}.${name}`;
  const knob = TIDEPOOL_KNOBS.find((k) => k.name === name)!;
  const value = knobs[key] ?? DELIVERED[key] ?? knob.start;
  return Math.min(knob.most, Math.max(knob.least, Number.isFinite(value) ? value : knob.start));
}
