import type { NoiseTrait } from '@pebble-hall/core/commissioning';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { runJob } from '../../services/jobs';
import { liveSession } from '../../services/liveSession';

/** It is listened for hum so often, ms. */
const EVERY_MS = 3000;

/** What stands out of an input while the generator is silent; null while nobody can tell. */
export function useTraits(input: number): NoiseTrait[] | null {
  const { status, isPlaying, isPaused, rate } = useStore(liveSession);
  const listens = status === 'on' && !isPlaying && !isPaused;
  const [heard, setHeard] = useState<{ input: number; traits: NoiseTrait[] | null } | null>(null);
  useEffect(() => {
    if (!listens) return;
    let isOver = false;
    const listen = () =>
      void runJob('live.traits', { input, rate }).then(
        (traits) => void (isOver || setHeard({ input, traits })),
        // a session that ends meanwhile has nothing to tell
        () => {},
      );
    const timer = setInterval(listen, EVERY_MS);
    return () => {
      isOver = true;
      clearInterval(timer);
    };
  }, [listens, input, rate]);
  return listens && heard?.input === input ? heard.traits : null;
}
