import { memo } from 'react';
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
          <Chip
            key={l.id}
            id={l.id}
            name={l.name}
            pressed={l.id === chosen || l.id === channelId}
            title={
              miss &&
              `largest miss ${formatDb(miss.db)} at ${formatHz(miss.at)}${miss.reason ? `: ${miss.reason}` : ''}`
            }
            misses={beyond ? formatDb(miss.db, 0) : undefined}
            onChoose={onChoose}
          />
        );
      })}
      <span style={{ width: 8 }} />
      {families.length > 1
        ? families.map((f) => (
            <Chip key={f.id} id={f.id} name={f.name} all pressed={chosen === f.id} onChoose={onChoose} />
          ))
        : null}
      <Chip id={ALL} name="All" pressed={chosen === ALL} onChoose={onChoose} />
    </div>
  );
}

interface ChipProps {
  id: string;
  name: string;
  pressed: boolean;
  /** of a whole family */
  all?: boolean;
  title?: string | undefined;
  /** by how much it misses its target, where that is too much */
  misses?: string | undefined;
  onChoose: (id: string) => void;
}

/** What can be chosen; drawn anew only when what it says is another. */
const Chip = memo(function Chip({ id, name, pressed, all = false, title, misses, onChoose }: ChipProps) {
  return (
    <button className="chip" aria-pressed={pressed} title={title} onClick={() => onChoose(id)}>
      {all ? <small>all</small> : null}
      {all ? ' ' : null}
      {name}
      {misses ? (
        <small className="attention" aria-label="misses the target">
          {misses}
        </small>
      ) : null}
    </button>
  );
});
