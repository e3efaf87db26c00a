import type { BassPageProps } from './bassProps';
import { CrossoverCard } from './CrossoverCard';
import { AlignmentCard } from './AlignmentCard';
import { LowChannelCard } from './LowChannelCard';

/** Bass management: who plays the lows of a channel, how well both add up over all spots, and the low-frequency channel. */
export function BassPage(props: BassPageProps) {
  return (
    <>
      <CrossoverCard {...props} />
      <AlignmentCard {...props} />
      <LowChannelCard {...props} />
    </>
  );
}
