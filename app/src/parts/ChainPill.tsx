import { useEffect, useState } from 'react';
import { activeMemory, readProcessor } from '../rig';

/** Tells the header that the processor may hold something else now. */
export const processorChanged = (): boolean => dispatchEvent(new Event('pebble-hall.processor'));

/** What the sound runs through at the moment: the active memory of the processor, and whether it filters. */
export function ChainPill({
  listening,
}: {
  /** listening chain in use; null for none */ listening: string | null;
}) {
  const [chain, setChain] = useState<{ text: string; filters: boolean } | null>(null);
  useEffect(() => {
    const read = () =>
      readProcessor()
        .then((state) => {
          const { letter, name, hasFilters } = activeMemory(state);
          setChain({
            text: `memory ${letter}, ${hasFilters ? name || 'corrected' : 'no filters'}`,
            filters: hasFilters,
          });
        })
        .catch(() => setChain({ text: 'processor not reached', filters: true }));
    void read();
    addEventListener('pebble-hall.processor', read);
    addEventListener('focus', read);
    return () => {
      removeEventListener('pebble-hall.processor', read);
      removeEventListener('focus', read);
    };
  }, []);
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
