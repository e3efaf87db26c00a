import { useEffect, useEffectEvent, useRef } from 'react';

/**
 * What is playing is stopped, and played again once what it was made from has changed.
 * @returns asks for it: `chainId` is the chain that has to be in use by then, `first` whom to hear; nothing happens while nothing plays
 */
export function usePlayAgain(
  listening: { playing: boolean; work: string | null; stop: () => void },
  chainId: string | null,
  play: (first: number) => void,
): (first: number, chainId?: string | null) => void {
  const { playing, work } = listening;
  const waiting = useRef<{ chainId: string | null; first: number } | null>(null);
  const again = useEffectEvent(play);
  useEffect(() => {
    const next = waiting.current;
    if (!next || playing || work || next.chainId !== chainId) return;
    waiting.current = null;
    again(next.first);
  }, [playing, work, chainId]);
  return (first, inUse = chainId) => {
    if (!playing) return;
    waiting.current = { chainId: inUse, first };
    listening.stop();
  };
}
