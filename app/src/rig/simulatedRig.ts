import { BURROW, stepNudge, type Faults, type PlacedMicrophone } from '@pebble-hall/stand-ins/rig';
import type { RoomApi } from '../workers/room.worker';
import { startWorker, type RunningWorker } from '../workers/startWorker';
import {
  abortError,
  checkRequest,
  isAbort,
  type AudioRig,
  type PlayOptions,
  type PlayRequest,
  type Recording,
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
  private microphones: PlacedMicrophone[] = [];

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
      warnings: [],
    };
  }

  /** Which microphones are on which inputs, and where they stand; real ones are carried there. */
  standMicrophones(microphones: PlacedMicrophone[]): void {
    this.microphones = microphones;
  }

  async playAndRecord(
    request: PlayRequest,
    { signal, onProgress, onBlock }: PlayOptions = {},
  ): Promise<Recording> {
    await this.open();
    checkRequest(BURROW.name, request, BURROW.outputs, BURROW.inputs.length);
    if (signal?.aborted) throw abortError();
    const asked = (this.options.faults ?? practiceFaults)();
    // a slam waits for a take that is long enough to be worth spoiling
    const slams = asked.doorSlam && request.signals.length > 0 && request.lengthFrames > 1.5 * BURROW.rate;
    const faults = { ...asked, doorSlam: slams };
    const { outputs, filters } = await (this.options.processor ?? readActiveOutputs)();
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
            through: request.through ?? 'outputs',
            lengthFrames: request.lengthFrames,
            microphones: this.standing(request, faults),
            outputs,
            filters,
            faults,
            inputs: request.inputs,
            take: nextTake(),
          }),
        signal,
      );
      if (slams && !this.options.faults) {
        setPracticeFaults({ ...practiceFaults(), doorSlam: false }); // one slam is one slam
      }
      const channels = request.inputs.map((input) => recorded[input - 1]!);
      const until = this.options.pace === 'real time' ? started + 1000 * seconds : 0;
      await handOut(channels[0], until, onBlock, signal);
      onProgress?.(1);
      return { channels, dropouts: 0, missedBlocks: 0 };
    } finally {
      clearInterval(timer);
    }
  }

  /** The microphones as they really stand: somebody may have knocked the stand since it was put up. */
  private standing({ signals, lengthFrames }: PlayRequest, faults: Faults): PlacedMicrophone[] {
    const [first] = this.microphones;
    if (!first || !faults.nudge || signals.length === 0 || lengthFrames < 1.5 * BURROW.rate)
      return this.microphones;
    const { nudge, offset } = stepNudge(faults.nudge, first.position.join(' '));
    if (!this.options.faults) setPracticeFaults({ ...practiceFaults(), nudge });
    const [dx, dy, dz] = offset;
    const [x, y, z] = first.position;
    return [{ ...first, position: [x + dx, y + dy, z + dz] }, ...this.microphones.slice(1)];
  }

  async stream(
    inputs: number[],
    onBlock: (block: Float32Array[], fromFrame: number) => void,
    onLost: (error: Error) => void = () => {},
  ): Promise<{ stop: () => void }> {
    await this.open();
    checkRequest(
      BURROW.name,
      { inputs, signals: [], lengthFrames: BLOCK },
      BURROW.outputs,
      BURROW.inputs.length,
    );
    const stopper = new AbortController();
    const started = performance.now();
    const run = async () => {
      for (let frame = 0; !stopper.signal.aborted; frame += BLOCK) {
        const faults = (this.options.faults ?? practiceFaults)();
        const from = frame;
        const block = await this.worker!.call(
          (api) => api.listen(this.microphones, faults, inputs, from, BLOCK),
          stopper.signal,
        );
        if (!stopper.signal.aborted) onBlock(block, from);
        // as sound does, or four times as fast where nobody wants to wait
        const speed = this.options.pace === 'quick' ? 4 : 1;
        const due = ((frame + BLOCK) / BURROW.rate / speed) * 1000;
        await rest(due - (performance.now() - started), stopper.signal);
      }
    };
    run().catch((error: unknown) => {
      if (!isAbort(error)) onLost(error instanceof Error ? error : new Error(String(error)));
    });
    return { stop: () => stopper.abort() };
  }

  async close(): Promise<void> {
    this.worker?.stop();
    this.worker = null;
  }
}

/** Hands out what was recorded, block by block until a moment (by `performance.now`); at once where that is past. */
async function handOut(
  channel: Float32Array | undefined,
  until: number,
  onBlock: PlayOptions['onBlock'],
  signal?: AbortSignal,
): Promise<void> {
  const from = performance.now();
  const left = until - from;
  if (!channel || !onBlock || left <= 0) {
    if (channel) onBlock?.(channel, 0);
    return rest(left, signal);
  }
  for (let at = 0; at < channel.length; at += BLOCK) {
    const end = Math.min(channel.length, at + BLOCK);
    await rest((left * end) / channel.length - (performance.now() - from), signal);
    onBlock(channel.subarray(at, end), at);
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
