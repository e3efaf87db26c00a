import { describeNoise } from '@pebble-hall/core/commissioning';
import { LiveDesk, quietFigures, toneFigures, type LiveSettings } from '@pebble-hall/core/live';
import type { SessionAnswer, SessionBlock } from '../ports/rig/rigSession';
import { handOver, serveJobs } from './serveJobs';

/** A session as it is begun: where blocks come from, at which rate, which inputs they hold. */
export interface LiveBegin {
  port: MessagePort;
  rate: number;
  inputs: number[];
  settings: LiveSettings;
}

/** So long is listened for hum. */
const TRAITS_S = 5;

let desk: LiveDesk | null = null;
let open: MessagePort | null = null;

function begin({ port, rate, inputs, settings }: LiveBegin): void {
  open?.close();
  open = port;
  const mine = (desk = new LiveDesk(rate, inputs, settings));
  port.onmessage = ({ data: { fromFrame, frames, data } }: MessageEvent<SessionBlock>) => {
    const room = data.length / (inputs.length + 1);
    const [...channels] = Array.from({ length: inputs.length + 1 }, (_, c) =>
      data.subarray(c * room, c * room + frames),
    );
    const generator = channels.pop()!;
    mine.take({ fromFrame, channels, generator });
    mine.track();
    port.postMessage({ back: data } satisfies SessionAnswer, [data.buffer]);
  };
}

const jobs = {
  begin,
  change: (settings: LiveSettings) => desk?.change(settings),
  reset: () => desk?.reset(),
  pause: (isPaused: boolean) => void (desk && (desk.isPaused = isPaused)),
  frame: () => desk?.read() ?? null,
  find: ({ id, band }: { id: string; band?: { from: number; to: number } }) => desk?.find(id, band) ?? null,
  /** what stands out of the last seconds of an input */
  traits: ({ input, rate }: { input: number; rate: number }) => {
    const heard = desk?.heardOf(input, TRAITS_S);
    return heard && heard.length >= 2 * rate ? describeNoise(heard, rate) : null;
  },
  /** the noise of the last seconds of an input, and the tone in them, where one was played */
  device: (i: { input: number; rate: number; seconds: number; toneHz: number | null }) => {
    const heard = desk?.heardOf(i.input, i.seconds);
    if (!heard || heard.length < 8192) return null;
    return {
      quiet: i.toneHz === null ? quietFigures(heard, i.rate) : null,
      tone: i.toneHz === null ? null : toneFigures(heard, i.rate, i.toneHz),
    };
  },
  impulse: ({ id, beforeS, lengthS }: { id: string; beforeS: number; lengthS: number }) => {
    const impulse = desk?.impulse(id, beforeS);
    if (!impulse) return null;
    const samples = impulse.samples.slice(0, Math.round(lengthS * impulse.rate));
    return handOver({ ...impulse, samples }, [samples]);
  },
  end: () => {
    open?.close();
    open = null;
    desk = null;
  },
};
export type LiveJobs = typeof jobs;
serveJobs(jobs);
