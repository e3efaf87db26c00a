import { CalibratorTone, SoundLevelMeter, type CalibratorReading } from '@pebble-hall/core/level';
import { createStore } from 'zustand/vanilla';

/** The history holds this many points, ten a second: ten minutes. */
const MOST_POINTS = 6000;
const EVERY_S = 0.1;

export interface MeterState {
  listening: boolean;
  /** counts what was heard, so that whoever looks knows when to look again */
  heard: number;
  tone: CalibratorReading;
}

/** A meter, a calibrator watch and a history on one input. Values go by subscription, past rendering. */
export class MeterSession {
  readonly store = createStore<MeterState>(() => ({
    listening: false,
    heard: 0,
    tone: { state: 'waiting' },
  }));
  meter: SoundLevelMeter | null = null;
  private tone: CalibratorTone | null = null;
  private next = 0;
  /** LAF and LCF, dB re full scale, oldest first */
  readonly history: { a: number; c: number }[] = [];

  begin(rate: number): void {
    if (this.meter?.rate !== rate) {
      this.meter = new SoundLevelMeter(rate);
      this.history.length = 0;
      this.next = 0;
    }
    this.tone = new CalibratorTone(rate);
    this.store.setState({ listening: true, tone: { state: 'waiting' } });
  }

  process(block: Float32Array): void {
    const { meter, tone } = this;
    if (!meter || !tone) return;
    meter.process(block);
    tone.process(block);
    while (meter.heardS >= this.next) {
      this.history.push({ a: meter.read('A').fastDb, c: meter.read('C').fastDb });
      if (this.history.length > MOST_POINTS) this.history.shift();
      this.next += EVERY_S;
    }
    this.store.setState((s) => ({ heard: s.heard + 1, tone: tone.read() }));
  }

  end(): void {
    this.store.setState({ listening: false, tone: { state: 'waiting' } });
  }

  reset(): void {
    this.meter?.reset();
    this.store.setState((s) => ({ heard: s.heard + 1 }));
  }
}
