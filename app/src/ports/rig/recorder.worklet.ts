/** Hands over what comes in, block by block, with the frame that each block starts at. Runs on the audio thread. */

declare const currentFrame: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: unknown): void;

export interface RecorderOptions {
  channels: number;
  blockFrames: number;
}

/** To the page: a block of every channel. `missed` counts quanta of the audio clock that never came. */
export interface RecorderBlock {
  fromFrame: number;
  data: Float32Array;
  missed: number;
}

/** From the page: begin at a frame, or take an emptied block back. */
export type RecorderMessage = { startFrame: number } | { back: Float32Array } | { stop: true };

class Recorder extends AudioWorkletProcessor {
  private readonly channels: number;
  private readonly blockFrames: number;
  private readonly free: Float32Array[] = [];
  private block: Float32Array;
  private filled = 0;
  private blockStart = 0;
  private startFrame = Infinity;
  private expected = -1;
  private missed = 0;
  private stopped = false;

  constructor({ processorOptions }: { processorOptions: RecorderOptions }) {
    super();
    this.channels = processorOptions.channels;
    this.blockFrames = processorOptions.blockFrames;
    const size = this.channels * this.blockFrames;
    // enough blocks for a page that is busy for two seconds: the audio thread allocates nothing until then
    for (let i = 0; i < 48; i++) this.free.push(new Float32Array(size));
    this.block = this.free.pop()!;
    this.port.onmessage = ({ data }: MessageEvent<RecorderMessage>) => {
      if ('back' in data) this.free.push(data.back);
      else if ('stop' in data) this.stopped = true;
      else this.startFrame = data.startFrame;
    };
  }

  process(inputs: Float32Array[][]): boolean {
    if (this.stopped) return false;
    const input = inputs[0]!;
    const frames = 128;
    if (this.expected >= 0 && currentFrame !== this.expected) this.missed++;
    this.expected = currentFrame + frames;
    const from = Math.max(0, this.startFrame - currentFrame);
    for (let i = from; i < frames; i++) {
      if (this.filled === 0) this.blockStart = currentFrame + i;
      for (let c = 0; c < this.channels; c++) {
        // no channel while the input has nothing to give yet
        this.block[c * this.blockFrames + this.filled] = input[c] ? input[c]![i]! : 0;
      }
      if (++this.filled === this.blockFrames) this.hand();
    }
    return true;
  }

  private hand(): void {
    const data = this.block;
    this.port.postMessage({ fromFrame: this.blockStart, data, missed: this.missed } satisfies RecorderBlock, [
      data.buffer,
    ]);
    this.block = this.free.pop() ?? new Float32Array(this.channels * this.blockFrames);
    this.filled = 0;
  }
}

registerProcessor('pebble-recorder', Recorder);
