import type { SimulatedSession } from '@pebble-hall/stand-ins/rig';
import { SESSION_BLOCKS, type SessionAnswer, type SessionBlock } from './rigSession';

interface Clock {
  now: () => number;
  /** calls back after so many milliseconds */
  later: (ms: number, call: () => void) => void;
}

const CLOCK: Clock = { now: () => performance.now(), later: (ms, call) => void setTimeout(call, ms) };

/**
 * Makes a simulated session run by the clock, block by block into a port. A listener that gives no array back in time loses
 * blocks, as with a real interface; where nobody wants to wait for sound, the session waits for the listener instead.
 */
export class SessionPump {
  private readonly free: Float32Array[];
  private block = 0;
  private readonly startedAt: number;

  /** @param speed times as fast as sound */
  constructor(
    private readonly session: SimulatedSession,
    private readonly port: Pick<MessagePort, 'postMessage' | 'onmessage'>,
    private readonly options: { inputs: number; rate: number; speed: number },
    private readonly clock: Clock = CLOCK,
  ) {
    const size = (options.inputs + 1) * session.block;
    this.free = Array.from({ length: SESSION_BLOCKS }, () => new Float32Array(size));
    port.onmessage = ({ data }: MessageEvent<SessionAnswer>) => void this.free.push(data.back);
    this.startedAt = clock.now();
    this.next();
  }

  private next(): void {
    const { session, options, clock } = this;
    const waits = options.speed > 1 && this.free.length === 0;
    if (waits) return clock.later(5, () => this.next());
    const generator = new Float32Array(session.block);
    const channels = session.next(generator);
    const data = this.free.pop();
    if (data) {
      [...channels, generator].forEach((samples, c) => data.set(samples, c * session.block));
      const message: SessionBlock = { fromFrame: this.block * session.block, frames: session.block, data };
      this.port.postMessage(message, [data.buffer]);
    }
    this.block++;
    const due = ((this.block * session.block) / options.rate / options.speed) * 1000;
    clock.later(Math.max(0, due - (clock.now() - this.startedAt)), () => this.next());
  }
}
