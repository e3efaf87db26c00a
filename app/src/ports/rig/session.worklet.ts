import { GeneratorPlayer, type GeneratorOrder } from '@pebble-hall/core/live';
import { SESSION_BLOCKS, SESSION_FRAMES, type SessionAnswer, type SessionBlock } from './rigSession';

/** Plays a generator and hands over what comes in, on one clock, straight to whoever analyses it. Runs on the audio thread. */

declare const currentFrame: number;
declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: unknown): void;

export interface SessionOptions {
  /** from 1 */
  inputs: number[];
}

/** From the page. */
export type SessionMessage =
  { port: MessagePort } | { order: GeneratorOrder; outputs: number[] } | { stop: true };

/** A quantum of the audio clock. */
const QUANTUM = 128;

class Session extends AudioWorkletProcessor {
  private readonly inputs: number[];
  private readonly free: Float32Array[] = [];
  private readonly player = new GeneratorPlayer(sampleRate);
  private readonly drive = new Float32Array(QUANTUM);
  private readonly ways = [new Float32Array(QUANTUM), new Float32Array(QUANTUM)];
  private outputs: number[] = [];
  private listener: MessagePort | null = null;
  private block: Float32Array | null = null;
  private filled = 0;
  private blockStart = 0;
  private began = -1;
  private stopped = false;

  constructor({ processorOptions }: { processorOptions: SessionOptions }) {
    super();
    this.inputs = processorOptions.inputs;
    const size = (this.inputs.length + 1) * SESSION_FRAMES;
    for (let i = 0; i < SESSION_BLOCKS; i++) this.free.push(new Float32Array(size));
    this.port.onmessage = ({ data }: MessageEvent<SessionMessage>) => {
      if ('port' in data) {
        this.listener = data.port;
        data.port.onmessage = ({ data: answer }: MessageEvent<SessionAnswer>) =>
          void this.free.push(answer.back);
      } else if ('stop' in data) this.stopped = true;
      else {
        this.player.play(data.order);
        this.outputs = data.outputs;
      }
    };
  }

  process([input]: Float32Array[][], [output]: Float32Array[][]): boolean {
    if (this.stopped) return false;
    this.player.read(this.drive, this.ways);
    this.outputs.forEach((number, w) => output?.[number - 1]?.set(this.ways[w]!));
    if (!this.listener) return true;
    if (this.began < 0) this.began = currentFrame;
    // a quantum that the audio thread left out ends a block where it was: what follows says where it begins
    if (this.filled > 0 && currentFrame !== this.blockStart + this.filled) this.hand();
    if (this.filled === 0) {
      this.blockStart = currentFrame;
      this.block = this.free.pop() ?? null;
    }
    const { block } = this;
    if (block) {
      this.inputs.forEach((number, c) => {
        const from = c * SESSION_FRAMES + this.filled;
        const channel = input?.[number - 1];
        // no channel while the input has nothing to give yet
        if (channel) block.set(channel, from);
        else block.fill(0, from, from + QUANTUM);
      });
      block.set(this.drive, this.inputs.length * SESSION_FRAMES + this.filled);
    }
    this.filled += QUANTUM;
    if (this.filled === SESSION_FRAMES) this.hand();
    return true;
  }

  /** Without an array that came back in time, the block is lost; the number of the next one's first frame tells. */
  private hand(): void {
    const { block } = this;
    if (block) {
      const message: SessionBlock = {
        fromFrame: this.blockStart - this.began,
        frames: this.filled,
        data: block,
      };
      this.listener!.postMessage(message, [block.buffer]);
    }
    this.block = null;
    this.filled = 0;
  }
}

registerProcessor('pebble-session', Session);
