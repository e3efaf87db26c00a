import { formatDb, formatHz } from '../../../charts/chartMath';
import type { Miss } from './tour';

/** Channels of a group with what they miss. */
export function MissList({
  misses,
  channels,
  over,
  onChoose,
}: {
  misses: Map<string, Miss>;
  channels: { id: string; name: string }[];
  over: number;
  onChoose: (id: string) => void;
}) {
  return (
    <>
      {channels.map((c) => {
        const miss = misses.get(c.id);
        if (!miss) return null;
        return (
          <div key={c.id}>
            <button className="linkish" onClick={() => onChoose(c.id)}>
              {c.name}
            </button>{' '}
            <span className={Math.abs(miss.db) > over ? 'attention' : ''}>
              misses by {formatDb(miss.db)} at {formatHz(miss.at)} at most
            </span>
            {miss.reason ? <small className="quiet">: {miss.reason}</small> : null}
          </div>
        );
      })}
    </>
  );
}
