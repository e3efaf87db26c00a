import type { PendingLoad } from '@pebble-hall/core/project';
import type { ProcessorPort } from '../ports/processor';

/** What became of a transfer that was begun, as the processor itself tells. */
export type PendingOutcome =
  /** it waits to be gone on with; the memory is as it was */
  | { kind: 'waits'; share: number }
  /** the memory holds it, settings and taps */
  | { kind: 'arrived' }
  /** there is no such transfer any more, and the memory is empty, or holds something else */
  | { kind: 'lost'; isEmpty: boolean };

type Asked = Pick<ProcessorPort, 'state' | 'readMemory' | 'heldAfterLoad'>;

/**
 * Asks the processor for what it holds: whether an answer was lost, a page was closed or the processor was restarted in between
 * cannot be told from here.
 * @param filters of the load, one for each output
 */
export async function outcomeOf(
  processor: Asked,
  { transferId, load }: PendingLoad,
  filters: Float32Array[],
): Promise<PendingOutcome> {
  const { transfer, memories } = await processor.state();
  if (transfer?.id === transferId)
    return { kind: 'waits', share: transfer.bytes > 0 ? transfer.received / transfer.bytes : 1 };
  const summary = memories.find((m) => m.letter === load.letter);
  if (!summary || 'empty' in summary) return { kind: 'lost', isEmpty: true };
  const expected = processor.heldAfterLoad({ outputs: load.outputs!, filters });
  if (expected.includes(summary.checksum)) return { kind: 'arrived' };
  // a setting may have been changed since; the taps are nobody else's
  const held = await processor.readMemory(load.letter);
  const isSame = filters.every((filter, i) => {
    const got = held.filters[i];
    return got?.length === filter.length && filter.every((v, k) => v === got[k]);
  });
  return isSame && filters.some((filter) => filter.length > 0)
    ? { kind: 'arrived' }
    : { kind: 'lost', isEmpty: false };
}

/** What the memory holds, in one sentence. */
export const outcomeWords = (letter: string, outcome: PendingOutcome): string => {
  switch (outcome.kind) {
    case 'waits':
      return `Memory ${letter} still holds what it held before.`;
    case 'arrived':
      return `Memory ${letter} holds the new load: it had arrived.`;
    case 'lost':
      return outcome.isEmpty
        ? `Memory ${letter} is empty. Load it again.`
        : `Memory ${letter} does not hold this load. Load it again.`;
  }
};
