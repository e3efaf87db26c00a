import type { Point } from '@pebble-hall/core/geometry';
import type { MemoryContents } from '@pebble-hall/core/processing';
import { resampleFir } from '@pebble-hall/core/signal';
import {
  type BenchDevice,
  BURROW,
  stepNudge,
  type Faults,
  type PlacedMicrophone,
  type SimulatedPlace,
} from '@pebble-hall/stand-ins/rig';
import type { RigSessionJobs } from '../../workers/rigSession.worker';
import type { RoomJobs } from '../../workers/room.worker';
import { lane, type Lane } from '../../workers/lane';
import {
  checkRequest,
  type AudioRig,
  type MicrophoneStand,
  type PlayOptions,
  type PlayRequest,
  type Recording,
  type RigDescription,
} from './AudioRig';
import { abortError, isAbort } from '../abort';
import { onPracticeFaults, practiceFaults, setPracticeFaults } from './practiceFaults';
import { checkOutputs, type RigSession, type SessionRequest } from './rigSession';

/** What it is called where measurements say what they were taken with. */
export const SIMULATED_RIG_NAME = `${BURROW.name}, simulated`;

export interface SimulatedRigOptions {
  pace: 'quick' | 'real time';
  /** the place that it plays in, as it is now */
  place: () => SimulatedPlace;
  /** tells what the processor in between does */
  processor: () => Promise<Pick<MemoryContents, 'outputs' | 'filters'> & { rate: number }>;
  faults?: () => Faults;
  /** what is on the bench, as it is now; nothing when absent */
  device?: () => BenchDevice | null;
}

const BLOCK = 4800;
/** As fast as sound where nobody wants to wait, times. */
const QUICK = 4;
/** After so long what a session hears is asked for again, where it was not answered, ms each. */
const RETRY_MS = [300, 1000, 3000];

/** The simulated rig: the same port as a real interface, played into the model of a place in a worker. */
export class SimulatedRig implements AudioRig {
  readonly isAudible = false;
  private room: Lane<RoomJobs> | null = null;
  private microphones: PlacedMicrophone[] = [];
  private streaming: { refresh: () => void; stop: () => void } | null = null;

  constructor(private readonly options: SimulatedRigOptions) {}

  async open(): Promise<RigDescription> {
    this.room ??= lane<RoomJobs>(
      () => new Worker(new URL('../../workers/room.worker.ts', import.meta.url), { type: 'module' }),
    );
    return {
      name: BURROW.name,
      rate: BURROW.rate,
      inputs: BURROW.inputs.map((name, i) => ({ number: i + 1, name })),
      outputs: Array.from({ length: this.outputs() }, (_, i) => ({ number: i + 1, name: `Output ${i + 1}` })),
      warnings: [],
    };
  }

  /** As many as the place asks for: expanders are part of it. */
  private outputs = (): number =>
    Math.max(
      BURROW.outputs,
      this.options.device?.()?.output ?? 0,
      ...this.options.place().loudspeakers.map((l) => l.output),
    );

  placeMicrophones(microphones: MicrophoneStand[]): void {
    this.microphones = microphones.map((m) => ({ ...m, serial: Number.parseInt(m.serial, 10) || 0 }));
    this.streaming?.refresh();
  }

  async playAndRecord(
    request: PlayRequest,
    { signal, onProgress, onBlock }: PlayOptions = {},
  ): Promise<Recording> {
    await this.open();
    checkRequest(BURROW.name, request, this.outputs(), BURROW.inputs.length);
    if (signal?.aborted) throw abortError();
    const asked = (this.options.faults ?? practiceFaults)();
    // a slam waits for a take that is long enough to be worth spoiling
    const slams = asked.doorSlam && request.signals.length > 0 && request.lengthFrames > 1.5 * BURROW.rate;
    const faults = { ...asked, doorSlam: slams };
    const { outputs, filters, rate } = await this.options.processor();
    const started = performance.now();
    const seconds = request.lengthFrames / BURROW.rate;
    const isQuick = this.options.pace === 'quick';
    // in real time the share is the clock's, as with a real interface; a quick take lasts as long as its computation
    const timer = setInterval(() => {
      if (!isQuick) onProgress?.(Math.min(0.99, (performance.now() - started) / 1000 / seconds));
    }, 60);
    try {
      const recorded = await this.room!.run(
        'record',
        {
          place: this.options.place(),
          signals: request.signals,
          through: request.through ?? 'outputs',
          lengthFrames: request.lengthFrames,
          microphones: this.standing(request, faults),
          outputs,
          filters: filters.map((f) => atOwnRate(f, rate)),
          faults,
          inputs: request.inputs,
          take: nextTake(),
        },
        { signal, onProgress: isQuick ? (share) => onProgress?.(Math.min(0.99, share)) : undefined },
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
    const { nudge, offset } = stepNudge(faults.nudge, standsAt(first.position));
    if (!this.options.faults) setPracticeFaults({ ...practiceFaults(), nudge });
    const { x, y, z } = first.position;
    const position = { x: x + offset.x, y: y + offset.y, z: z + offset.z };
    return [{ ...first, position }, ...this.microphones.slice(1)];
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
        const block = await this.room!.run(
          'listen',
          { microphones: this.microphones, faults, inputs, fromFrame: from, length: BLOCK },
          { signal: stopper.signal },
        );
        if (!stopper.signal.aborted) onBlock(block, from);
        // as sound does, or faster
        const speed = this.options.pace === 'quick' ? QUICK : 1;
        const due = ((frame + BLOCK) / BURROW.rate / speed) * 1000;
        await rest(due - (performance.now() - started), stopper.signal);
      }
    };
    run().catch((error: unknown) => {
      if (!isAbort(error)) onLost(error instanceof Error ? error : new Error(String(error)));
    });
    return { stop: () => stopper.abort() };
  }

  async session({ inputs, port }: SessionRequest, onLost: (error: Error) => void): Promise<RigSession> {
    await this.open();
    checkRequest(BURROW.name, { inputs, signals: [], lengthFrames: 1 }, this.outputs(), BURROW.inputs.length);
    this.streaming?.stop();
    const stream = lane<RigSessionJobs>(
      () => new Worker(new URL('../../workers/rigSession.worker.ts', import.meta.url), { type: 'module' }),
      onLost,
    );
    let played: number[] = [];
    /** of what is to be played: a later order counts, even when an earlier one waits */
    let turn = 0;
    let latest: AbortController | null = null;
    const tell = (error: unknown) => {
      if (!isAbort(error)) onLost(error instanceof Error ? error : new Error(String(error)));
    };
    const change = async () => {
      latest?.abort();
      const mine = (latest = new AbortController());
      const faults = (this.options.faults ?? practiceFaults)();
      const microphones = this.microphones.filter((m) => inputs.includes(m.input));
      void stream.run('set', { microphones, faults }).catch(tell);
      const { outputs, filters, rate } = await this.options.processor();
      if (mine.signal.aborted) return;
      const ways = await this.room!.run(
        'ways',
        {
          place: this.options.place(),
          played,
          microphones,
          outputs,
          filters: filters.map((f) => atOwnRate(f, rate)),
          faults,
          device: this.options.device?.() ?? null,
        },
        { signal: mine.signal },
      );
      const transfer = ways.feeds.flatMap((f) => [f.drive, ...f.ways.map((w) => w.impulse)]);
      await stream.run('change', ways, { transfer });
    };
    /** What is heard goes on as it was while the processor or the model does not answer. */
    const changeInTime = async () => {
      for (let n = 0; ; n++) {
        const changed = change();
        const mine = latest!;
        try {
          return await changed;
        } catch (error) {
          const wait = RETRY_MS[n];
          if (isAbort(error) || wait === undefined) throw error;
          await rest(wait, mine.signal);
        }
      }
    };
    const refresh = () => void changeInTime().catch(tell);
    const speed = this.options.pace === 'quick' ? QUICK : 1;
    await stream.run('begin', { inputs, port, speed }, { transfer: [port] });
    const deaf = onPracticeFaults(refresh);
    refresh();
    const stop = () => {
      deaf();
      latest?.abort();
      stream.stop();
      this.streaming = null;
    };
    this.streaming = { refresh, stop };
    return {
      rate: BURROW.rate,
      play: (order, outputs) => {
        checkOutputs(BURROW.name, outputs, this.outputs());
        const mine = ++turn;
        const send = () => {
          if (mine === turn) void stream.run('play', { order, outputs: [...outputs] }).catch(tell);
        };
        if (order.source === null || outputs.every((o) => played.includes(o))) return send();
        // not before its ways are there: the loopback would hear what nothing else does
        played = [...outputs];
        changeInTime().catch(tell).finally(send);
      },
      refresh,
      stop,
    };
  }

  async close(): Promise<void> {
    this.streaming?.stop();
    this.room?.stop();
    this.room = null;
  }
}

/** A processor at another rate plays into the same converters. */
const atOwnRate = (fir: Float32Array, rate: number): Float32Array =>
  rate === BURROW.rate || fir.length === 0 ? fir : Float32Array.from(resampleFir(fir, rate, BURROW.rate).fir);

const standsAt = ({ x, y, z }: Point) => [x, y, z].join(' ');

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
    if (signal?.aborted) return reject(abortError());
    const stop = () => {
      clearTimeout(timer);
      reject(abortError());
    };
    const timer = setTimeout(
      () => {
        signal?.removeEventListener('abort', stop);
        resolve();
      },
      Math.max(0, ms),
    );
    signal?.addEventListener('abort', stop, { once: true });
  });
