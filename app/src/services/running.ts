import { createStore } from 'zustand/vanilla';

/** What sounds or computes at the moment in this tab; one thing at a time, and all of it can be stopped at once. */
export interface Running {
  what: string | null;
  controller: AbortController | null;
  /** what silence does instead of ending it: something that goes on listening when it no longer sounds */
  onSilence: (() => void) | null;
  /** whether it can be heard, or could be at any moment */
  sounds: boolean;
}

const NOTHING: Running = { what: null, controller: null, onSilence: null, sounds: false };
export const running = createStore<Running>(() => NOTHING);

const CHANNEL = 'pebble-hall.silence';

/** Stops whatever sounds, in every tab of this browser. */
export function silence(): void {
  silenceHere();
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage('silence');
  channel.close();
}

function silenceHere(): void {
  const { controller, onSilence } = running.getState();
  if (onSilence) onSilence();
  else controller?.abort();
}

/** Ends what is under way in this tab, whether it sounds or not. */
export const stopRunning = (): void => running.getState().controller?.abort();

/** Tells whether what is under way can be heard now. */
export const setSounds = (sounds: boolean): void => running.setState({ sounds });

/** Listens for the silence of other tabs, until the returned function is called. */
export function stopAllOnSilence(): () => void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = silenceHere;
  return () => channel.close();
}

/**
 * Runs something that sounds: only one in this browser at a time, as there is one rig.
 * @param onSilence called by Silence instead of cancelling it, where it goes on without sounding
 * @throws when another tab or another task is at it
 */
export async function exclusively<T>(
  what: string,
  run: (signal: AbortSignal) => Promise<T>,
  onSilence: (() => void) | null = null,
): Promise<T> {
  if (running.getState().controller)
    throw new Error(`${running.getState().what} is still under way; wait for it or stop it.`);
  return navigator.locks.request('pebble-hall.rig', { ifAvailable: true }, async (lock) => {
    if (!lock) throw new Error('Another tab is measuring with this rig. Finish or stop it there first.');
    const controller = new AbortController();
    running.setState({ what, controller, onSilence, sounds: onSilence === null });
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', warn);
    try {
      return await run(controller.signal);
    } finally {
      removeEventListener('beforeunload', warn);
      running.setState(NOTHING);
    }
  });
}
