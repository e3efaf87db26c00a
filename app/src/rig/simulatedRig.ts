import type { Position } from '@pebble-hall/core/project';
import { BURROW, type Faults } from '@pebble-hall/stand-ins/rig';
import type { RoomApi } from '../workers/room.worker';
import { startWorker, type RunningWorker } from '../workers/startWorker';
import {
  abortError,
  type AudioRig,
  type PlayOptions,
  type PlayRequest,
  type RigDescription,
} from './AudioRig';
import { practiceFaults, setPracticeFaults } from './practiceFaults';
import { readActiveOutputs, type ActiveOutputs } from './processorClient';

export interface SimulatedRigOptions {
  pace: 'quick' | 'real time';
  /** tells what the processor holds; the real endpoint by default */
  processor?: () => Promise<ActiveOutputs>;
  faults?: () => Faults;
}

const BLOCK = 4800;

/** The simulated rig: the same port as a real interface, played into the modelled Net Loft in a worker. */
export class SimulatedRig implements AudioRig {
  private worker: RunningWorker<RoomApi> | null = null;
  private microphone: Position = { x: 1, y: 1, z: 1 };

  constructor(private readonly options: SimulatedRigOptions) {}

  async open(): Promise<RigDescription> {
    this.worker ??= startWorker<RoomApi>(
      () => new Worker(new URL('../workers/room.worker.ts', import.meta.url), { type: 'module' }),
    );
    return {
      name: BURROW.name,
      rate: BURROW.rate,
      inputs: BURROW.inputs.map((name, i) => ({ number: i + 1, name })),
      outputs: Array.from({ length: BURROW.outputs }, (_, i) => ({ number: i + 1, name: `Output ${i + 1}` })),
    };
  }

  /** Where the stand-in's microphone is put up; a real one is carried there. */
  standMicrophoneAt(position: Position): void {
    this.microphone = position;
  }

  async playAndRecord(
    request: PlayRequest,
    { signal, onProgress }: PlayOptions = {},
  ): Promise<Float32Array[]> {
    await this.open();
    this.check(request);
    if (signal?.aborted) throw abortError();
    const faults = (this.options.faults ?? practiceFaults)();
    const { outputs, filters } = await (this.options.processor ?? readActiveOutputs)();
    const { x, y, z } = this.microphone;
    const started = performance.now();
    const seconds = request.lengthFrames / BURROW.rate;
    const timer = setInterval(() => {
      // a quick take has no clock of its own: its progress is that of the computation, about a second
      const duration = this.options.pace === 'quick' ? 1 : seconds;
      onProgress?.(Math.min(0.99, (performance.now() - started) / 1000 / duration));
    }, 60);
    try {
      const recorded = await this.worker!.call(
        (api) =>
          api.record({
            signals: request.signals,
            lengthFrames: request.lengthFrames,
            microphone: [x, y, z],
            outputs,
            filters,
            faults,
            take: nextTake(),
          }),
        signal,
      );
      if (faults.doorSlam && request.signals.length > 0 && !this.options.faults) {
        setPracticeFaults({ ...faults, doorSlam: false }); // one slam is one slam
      }
      if (this.options.pace === 'real time')
        await rest(seconds * 1000 - (performance.now() - started), signal);
      onProgress?.(1);
      return request.inputs.map((input) => recorded[input - 1]!);
    } finally {
      clearInterval(timer);
    }
  }

  async stream(inputs: number[], onBlock: (block: Float32Array[]) => void): Promise<{ stop: () => void }> {
    this.check({ inputs, signals: [], lengthFrames: BLOCK });
    const stopper = new AbortController();
    const run = async () => {
      while (!stopper.signal.aborted) {
        const request = { signals: [], inputs, lengthFrames: BLOCK };
        const block = await this.playAndRecord(request, { signal: stopper.signal });
        if (!stopper.signal.aborted) onBlock(block);
        await rest((1000 * BLOCK) / BURROW.rate, stopper.signal);
      }
    };
    run().catch(() => {}); // ends by being stopped
    return { stop: () => stopper.abort() };
  }

  async close(): Promise<void> {
    this.worker?.stop();
    this.worker = null;
  }

  private check({ signals, inputs, lengthFrames }: PlayRequest): void {
    if (!(lengthFrames > 0)) throw new RangeError('The take has no length.');
    for (const input of inputs) {
      if (!(input >= 1 && input <= BURROW.inputs.length))
        throw new RangeError(`${BURROW.name} has no input ${input}.`);
    }
    for (const { output, samples } of signals) {
      if (!(output >= 1 && output <= BURROW.outputs))
        throw new RangeError(`${BURROW.name} has no output ${output}.`);
      if (samples.some((v) => !(Math.abs(v) <= 1)))
        throw new RangeError('The signal goes beyond full scale; nothing was played.');
    }
  }
}

/** Takes are counted in the browser, so that the same work in an empty one gives the same noise. */
function nextTake(): number {
  const take = Number(localStorage.getItem(TAKES) ?? 0) + 1;
  localStorage.setItem(TAKES, String(take));
  return take;
}
const TAKES = 'pebble-hall.takes';

const rest = (ms: number, signal?: AbortSignal) =>
  new Promise<void>((resolve, reject) => {
    const timer = setTimeout(resolve, Math.max(0, ms));
    signal?.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(abortError());
    });
  });
