import { useEffect, useRef } from 'react';

/**
 * What is playing is stopped, and played again once what it was made from has changed.
 * @returns asks for it: `chainId` is the chain that has to be in use by then, `first` whom to hear; nothing happens while nothing plays
 */
export function usePlayAgain(
  listening: { playing: boolean; work: string | null; stop: () => void },
  chainId: string | null,
  play: (first: number) => void,
): (first: number, chainId?: string | null) => void {
  const waiting = useRef<{ chainId: string | null; first: number } | null>(null);
  useEffect(() => {
    const next = waiting.current;
    if (!next || listening.playing || listening.work || next.chainId !== chainId) return;
    waiting.current = null;
    play(next.first);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once per end of playing
  }, [listening.playing, listening.work, chainId]);
  return (first, inUse = chainId) => {
    if (!listening.playing) return;
    waiting.current = { chainId: inUse, first };
    listening.stop();
  };
}
