import type { Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { activeMemory } from '../ports/processor';
import { onProcessorChanged } from '../services/processorChanged';
import { theProcessor } from '../services/theProcessor';

/** What the sound runs through at the moment: the active memory of the processor, and whether it filters. */
export function ChainPill({
  processor,
  listening,
}: {
  /** what was chosen as the processor */
  processor: Project['processor'];
  /** listening chain in use; null for none */
  listening: string | null;
}) {
  const [chain, setChain] = useState<{ text: string; filters: boolean } | null>(null);
  useEffect(() => {
    const read = () =>
      theProcessor()
        .state()
        .then((state) => {
          const { letter, name, hasFilters } = activeMemory(state);
          const where = theProcessor().capabilities.memories ? `memory ${letter}` : 'by files';
          setChain({
            text: `${where}, ${hasFilters ? name || 'corrected' : 'no filters'}`,
            filters: hasFilters,
          });
        })
        .catch(() => setChain({ text: 'processor not reached', filters: true }));
    void read();
    return onProcessorChanged(() => void read());
  }, [processor]);
  return (
    <span className="pill" role="status" aria-label="In the chain">
      In the chain: <b className={chain?.filters ? 'attention' : ''}>{chain?.text ?? '…'}</b>
      {listening ? (
        <>
          {' '}
          and <b className="attention">{listening}, for monitoring</b>
        </>
      ) : null}
    </span>
  );
}
