import { createStore } from 'zustand/vanilla';

/** What sounds or computes at the moment in this tab; one thing at a time, and all of it can be stopped at once. */
export interface Running {
  what: string | null;
  controller: AbortController | null;
}

export const running = createStore<Running>(() => ({ what: null, controller: null }));

const CHANNEL = 'pebble-hall.silence';

/** Stops whatever sounds, in every tab of this browser. */
export function silence(): void {
  silenceHere();
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage('silence');
  channel.close();
}

const silenceHere = (): void => running.getState().controller?.abort();

/** Listens for the silence of other tabs, until the returned function is called. */
export function stopAllOnSilence(): () => void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = silenceHere;
  return () => channel.close();
}

/**
 * Runs something that sounds: only one in this browser at a time, as there is one rig.
 * @throws when another tab or another task is at it
 */
export async function exclusively<T>(what: string, run: (signal: AbortSignal) => Promise<T>): Promise<T> {
  if (running.getState().controller)
    throw new Error(`${running.getState().what} is still under way; wait for it or stop it.`);
  return navigator.locks.request('pebble-hall.rig', { ifAvailable: true }, async (lock) => {
    if (!lock) throw new Error('Another tab is measuring with this rig. Finish or stop it there first.');
    const controller = new AbortController();
    running.setState({ what, controller });
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    addEventListener('beforeunload', warn);
    try {
      return await run(controller.signal);
    } finally {
      removeEventListener('beforeunload', warn);
      running.setState({ what: null, controller: null });
    }
  });
}
