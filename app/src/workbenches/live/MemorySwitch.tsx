import { Button, NativeSelect } from '@mantine/core';
import { memo, useEffect, useState } from 'react';
import { liveFrames, resetLive } from '../../services/liveSession';
import { recallMemory } from '../../services/memoryWork';
import { onProcessorChanged } from '../../services/processorChanged';
import { theProcessor } from '../../services/theProcessor';
import { heldFrom, type HeldMemory } from './heldMemory';

interface Props {
  isOn: boolean;
  held: HeldMemory | null;
  onHold: (held: HeldMemory | null) => void;
  /** told the memory that plays */
  onActive: (letter: string) => void;
}

/** After a memory was recalled, what the one before it played dies away, ms. */
const SETTLE_MS = 1500;

/** Recalls a memory of the processor while one measures: what was measured through the one before is held beside it. */
export const MemorySwitch = memo(function MemorySwitch({ isOn, held, onHold, onActive }: Props) {
  const [state, setState] = useState<{ active: string; letters: string[] } | null>(null);
  const [isRecalling, setRecalling] = useState(false);
  useEffect(() => {
    let isOver = false;
    const read = () => {
      if (!theProcessor().capabilities.memories) return setState(null);
      theProcessor()
        .state()
        .then(
          ({ active, memories }) => {
            if (isOver) return;
            setState({ active, letters: memories.flatMap((m) => ('empty' in m ? [] : [m.letter])) });
            onActive(active);
          },
          // the header tells that it is not reached
          () => void (isOver || setState(null)),
        );
    };
    read();
    const off = onProcessorChanged(read);
    return () => {
      isOver = true;
      off();
    };
  }, [onActive]);
  if (!state || (state.letters.length < 2 && !held)) return null;
  const recall = async (letter: string) => {
    const before = heldFrom(state.active, liveFrames.getState().frame);
    setRecalling(true);
    try {
      await recallMemory(letter);
      onHold(before);
      await new Promise((resolve) => setTimeout(resolve, SETTLE_MS));
      await resetLive();
    } finally {
      setRecalling(false);
    }
  };
  return (
    <>
      <NativeSelect
        size="xs"
        aria-label="Memory that plays"
        title="Recall another memory: what was measured through this one is held beside it"
        disabled={!isOn || isRecalling}
        data={state.letters.map((l) => ({ value: l, label: `memory ${l}` }))}
        value={state.active}
        onChange={(e) => void recall(e.currentTarget.value)}
      />
      {held ? (
        <Button size="compact-sm" variant="subtle" onClick={() => onHold(null)}>
          Let memory {held.letter} go
        </Button>
      ) : null}
    </>
  );
});
