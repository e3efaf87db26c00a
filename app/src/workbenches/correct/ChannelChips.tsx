import type { Family, Loudspeaker } from '@pebble-hall/core/project';
import { formatDb, formatHz } from '../../charts/chartMath';
import type { largestMiss } from './shape/tour';

/** Chosen in place of a channel or a family. */
export const ALL = 'all channels';

interface ChannelChipsProps {
  channels: Loudspeaker[];
  families: Family[];
  chosen: string | null;
  /** the channel that is shown; null while a group is */
  channelId: string | null;
  misses: Map<string, ReturnType<typeof largestMiss>>;
  /** a miss beyond this is marked, dB */
  missOver: number;
  onChoose: (id: string) => void;
}

/** All channels with a mark on those that miss their target, then families, then all together. */
export function ChannelChips(props: ChannelChipsProps) {
  const { channels, families, chosen, channelId, misses, missOver, onChoose } = props;
  return (
    <div
      className="chips"
      style={{ gridColumn: '1 / 3', overflowX: 'auto' }}
      role="group"
      aria-label="Channels"
    >
      {channels.map((l) => {
        const miss = misses.get(l.id);
        const beyond = miss && Math.abs(miss.db) > missOver;
        return (
          <button
            key={l.id}
            className="chip"
            aria-pressed={l.id === chosen || l.id === channelId}
            title={
              miss
                ? `largest miss ${formatDb(miss.db)} at ${formatHz(miss.at)}${miss.reason ? `: ${miss.reason}` : ''}`
                : undefined
            }
            onClick={() => onChoose(l.id)}
          >
            {l.name}
            {beyond ? (
              <small className="attention" aria-label="misses the target">
                {formatDb(miss.db, 0)}
              </small>
            ) : null}
          </button>
        );
      })}
      <span style={{ width: 8 }} />
      {families.length > 1
        ? families.map((f) => (
            <button key={f.id} className="chip" aria-pressed={chosen === f.id} onClick={() => onChoose(f.id)}>
              <small>all</small> {f.name}
            </button>
          ))
        : null}
      <button className="chip" aria-pressed={chosen === ALL} onClick={() => onChoose(ALL)}>
        All
      </button>
    </div>
  );
}
