import { needAbove } from '../limits/index.js';
import { seededRandom, type Random } from '../signal/index.js';
import type { GeneratorSource } from './generatorSource.js';

/** What is heard of a generator: its source, how loud, and on which of its ways. */
export interface GeneratorOrder {
  /** null: nothing; `same`: what it is playing, or about to */
  source: GeneratorSource | null | 'same';
  /** of a source of unit RMS */
  gain: number;
  /** seconds on the first way, then as long on the second, and so on; null stays on both */
  alternateS: number | null;
}

type Playing = Omit<GeneratorOrder, 'source'> & { source: GeneratorSource | null };

/** Level and source change within this time, so that nothing clicks. */
const RAMP_S = 0.05;

/**
 * Plays a source block by block, without an end: levels are ramped, a new source comes once the old one has faded. Allocates
 * nothing while it plays.
 */
export class GeneratorPlayer {
  private order: Playing = { source: null, gain: 0, alternateS: null };
  private next: Playing | null = null;
  private level = 0;
  private at = 0;
  private frame = 0;
  private random: Random = seededRandom(1);
  private state = new Float64Array(0);
  private readonly share: [number, number] = [1, 1];

  /** @param rate Hz */
  constructor(private readonly rate: number) {
    needAbove('GeneratorPlayer', 'rate', rate, 0);
  }

  /** What is to be played from now on. */
  play({ source, ...rest }: GeneratorOrder): void {
    if (source === 'same') {
      if (this.next) this.next = { ...this.next, ...rest };
      else this.order = { ...this.order, ...rest };
    } else if (this.level === 0) this.begin({ source, ...rest });
    else this.next = { source, ...rest };
  }

  /** Whether nothing sounds, and nothing is about to. */
  get isSilent(): boolean {
    return this.level === 0 && this.order.gain === 0 && this.next === null;
  }

  /**
   * The next samples, full scale 1.
   * @param drive overwritten: what plays, whichever way it goes
   * @param ways overwritten: the same as it leaves by each way, one or two; as long as `drive`
   */
  read(drive: Float32Array, ways: readonly Float32Array[]): void {
    const step = 1 / (RAMP_S * this.rate);
    for (let i = 0; i < drive.length; i++) {
      const wanted = this.next ? 0 : this.order.source ? this.order.gain : 0;
      // in proportion to the gain, so that soft and loud ones take as long
      const most = step * Math.max(this.order.gain, this.level, 1e-6);
      this.level += Math.max(-most, Math.min(most, wanted - this.level));
      if (this.next && this.level < 1e-9) this.begin(this.next);
      const value = this.level === 0 && wanted === 0 ? 0 : this.level * this.sample();
      const v = value > 1 ? 1 : value < -1 ? -1 : value;
      drive[i] = v;
      this.turn(step);
      for (let w = 0; w < ways.length; w++) ways[w]![i] = v * this.share[w]!;
      this.frame++;
    }
  }

  private begin(order: Playing): void {
    this.order = order;
    this.next = null;
    this.level = 0;
    this.at = 0;
    if (order.source?.kind === 'noise') {
      this.random = seededRandom(order.source.seed);
      this.state = new Float64Array(2 * order.source.sections.length);
    }
  }

  private sample(): number {
    const { source } = this.order;
    if (!source) return 0;
    if (source.kind === 'loop') {
      const v = source.samples[this.at]!;
      this.at = this.at + 1 === source.samples.length ? 0 : this.at + 1;
      return v;
    }
    if (source.kind === 'sine') {
      const v = Math.SQRT2 * Math.sin(2 * Math.PI * this.at);
      this.at = (this.at + source.hz / this.rate) % 1;
      return v;
    }
    let v = source.gain * this.random.normal();
    const { sections } = source;
    for (let s = 0; s < sections.length; s++) {
      // transposed direct form II
      const { b0, b1, b2, a1, a2 } = sections[s]!;
      const out = b0 * v + this.state[2 * s]!;
      this.state[2 * s] = b1 * v - a1 * out + this.state[2 * s + 1]!;
      this.state[2 * s + 1] = b2 * v - a2 * out;
      v = out;
    }
    return v;
  }

  private turn(step: number): void {
    const { alternateS } = this.order;
    const first = alternateS === null || Math.floor(this.frame / (alternateS * this.rate)) % 2 === 0;
    for (let w = 0; w < 2; w++) {
      const wanted = alternateS === null || (w === 0) === first ? 1 : 0;
      this.share[w] = this.share[w]! + Math.max(-step, Math.min(step, wanted - this.share[w]!));
    }
  }
}
