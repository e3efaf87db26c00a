import { generatorSource, type QuietFigures, type ToneFigures } from '@pebble-hall/core/live';
import type { DeviceFigures } from '@pebble-hall/core/project';
import { createStore } from 'zustand/vanilla';
import { abortError, isAbort } from '../ports/abort';
import { projectNow, sentenceOf } from '../store';
import { changeProject } from './changeProject';
import { runJob } from './jobs';
import { findLiveDelay, liveFrames, liveSession, playOnBench } from './liveSession';
import { DEVICE_IDS, deviceGenerator, signalOf } from './liveSettings';
import { notifyProblem } from './notify';

/** A check of a device by itself, while it is under way. */
export const deviceCheck = createStore<{ step: string | null }>(() => ({ step: null }));

export const TONE_HZ = 1000;
/** What was heard before has died away, and so much is looked at, seconds. */
const SETTLE_S = 1.2;
const LOOK_S = 3;

let stopper: AbortController | null = null;
export const stopDeviceCheck = (): void => stopper?.abort();

/** Waits until so much more has been heard, on the session's own clock. */
function hear(seconds: number, signal: AbortSignal): Promise<void> {
  const from = liveFrames.getState().frame?.heardS ?? 0;
  return new Promise((resolve, reject) => {
    const ends: (() => void)[] = [];
    const end = (settle: () => void) => {
      for (const off of ends) off();
      settle();
    };
    const stop = () => end(() => reject(abortError()));
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop, { once: true });
    ends.push(
      () => signal.removeEventListener('abort', stop),
      liveFrames.subscribe(({ frame }) => {
        if ((frame?.heardS ?? 0) >= from + seconds) end(resolve);
      }),
      liveSession.subscribe(({ status }) => {
        if (status === 'off') end(() => reject(new Error('The session has ended; start it again.')));
      }),
    );
  });
}

/** Noise, distortion and latency of the device on the bench, one after the other; kept in the project. A failure is told. */
export async function checkDevice(): Promise<void> {
  if (deviceCheck.getState().step !== null) return;
  const { signal } = (stopper = new AbortController());
  const { inputs, levelDbfs } = projectNow().live.electronics;
  const { rate } = liveSession.getState();
  const look = (toneHz: number | null) =>
    Promise.all(inputs.map((input) => runJob('live.device', { input, rate, seconds: LOOK_S, toneHz })));
  try {
    deviceCheck.setState({ step: 'Silence: its noise' });
    playOnBench(null);
    await hear(SETTLE_S + LOOK_S, signal);
    const quiet: (QuietFigures | null)[] = (await look(null)).map((f) => f?.quiet ?? null);
    deviceCheck.setState({ step: `A tone at ${TONE_HZ / 1000} kHz: its distortion` });
    playOnBench({ source: generatorSource({ kind: 'sine', hz: TONE_HZ }, rate), levelDbfs });
    await hear(SETTLE_S + LOOK_S, signal);
    const tones: (ToneFigures | null)[] = (await look(TONE_HZ)).map((f) => f?.tone ?? null);
    deviceCheck.setState({ step: 'Noise: its latency' });
    const noise = generatorSource(signalOf(deviceGenerator(projectNow()), null)!, rate);
    playOnBench({ source: noise, levelDbfs });
    await hear(SETTLE_S + LOOK_S, signal);
    const delays = await Promise.all(inputs.map((_, i) => findLiveDelay(DEVICE_IDS[i]!)));
    const figures: DeviceFigures = {
      takenAt: Date.now(),
      levelDbfs,
      hz: TONE_HZ,
      channels: inputs.map((_, i) => ({
        quiet: quiet[i]!,
        tone: tones[i]!,
        latencyS: delays[i]?.delayS ?? null,
      })),
    };
    await changeProject('figures of the device', (p) => ({
      ...p,
      live: { ...p.live, electronics: { ...p.live.electronics, figures } },
    }));
  } catch (error) {
    if (!isAbort(error)) notifyProblem(`The device was not measured: ${sentenceOf(error)}`);
  } finally {
    deviceCheck.setState({ step: null });
    stopper = null;
    if (liveSession.getState().status === 'on') playOnBench(null);
  }
}
