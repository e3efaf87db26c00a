import type { Loudspeaker, Sweep } from '@pebble-hall/core/project';

/** What stands where a plot will be: that it is worked out, was never taken, or went wrong. */
export function Unseen({
  channel,
  sweep,
  problem,
}: {
  channel: Loudspeaker;
  sweep: Sweep | undefined;
  problem: string | null;
}) {
  return (
    <p className="quiet" style={{ padding: 20 }}>
      {problem ?? (sweep ? 'Looking …' : `${channel.name} was not taken at this spot.`)}
    </p>
  );
}
