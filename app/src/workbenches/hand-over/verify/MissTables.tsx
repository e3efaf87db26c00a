import { formatDb, formatHz } from '../../../charts/chartMath';
import { TableMenu } from '../../../parts/TableMenu';
import { missTable, spotTable } from './missTable';
import type { SpotVerdict } from './spotVerdicts';
import type { Comparison } from './compareLoad';

/** A name that is pressed to look at it. */
function Shown({ name, active, onShow }: { name: string; active: boolean; onShow: () => void }) {
  return (
    <button
      className="linkish"
      style={{ color: active ? 'var(--kelp)' : 'var(--ink)' }}
      aria-pressed={active}
      onClick={onShow}
    >
      {name}
    </button>
  );
}

/** How far each channel is from what was predicted. */
export function ChannelMisses({
  title,
  list,
  shownId,
  nameOf,
  onShow,
  onSaveFilter,
}: {
  /** under which it is taken along */
  title: string;
  list: Comparison[];
  shownId: string | null;
  nameOf: (id: string) => string;
  onShow: (id: string) => void;
  /** what saves a channel's filter; null where it has none */
  onSaveFilter: (id: string) => (() => void) | null;
}) {
  if (list.length === 0) return null;
  // the verdict tells the share of all; a column is needed where some channel was judged in part only
  const isPartial = list.some(({ difference: d }) => d && d.unjudged > 0.01 * d.octaves);
  return (
    <table className="plain" style={{ whiteSpace: 'nowrap', fontSize: isPartial ? 12 : undefined }}>
      <thead>
        <tr>
          <th>Channel</th>
          {isPartial ? <th className="num">judged</th> : null}
          <th className="num">RMS</th>
          <th className="num">Most</th>
          <th className="num">at</th>
          <th className="num">
            <TableMenu table={() => missTable(title, list, nameOf)} />
          </th>
        </tr>
      </thead>
      <tbody>
        {list.map(({ id, difference }) => {
          const saveFilter = onSaveFilter(id);
          return (
            <tr key={id}>
              <td>
                <Shown name={nameOf(id)} active={id === shownId} onShow={() => onShow(id)} />
              </td>
              {difference ? (
                <>
                  {isPartial ? (
                    <td
                      className="num mono"
                      title={`${(difference.octaves - difference.unjudged).toFixed(1)} of ${difference.octaves.toFixed(1)} octaves stand clear of the noise`}
                    >
                      {Math.round(100 * (1 - difference.unjudged / difference.octaves))} %
                    </td>
                  ) : null}
                  <td className="num mono">{difference.rmsDb.toFixed(2)} dB</td>
                  <td
                    className={`num mono ${difference.agrees ? 'good' : 'attention'}`}
                    title={
                      difference.noiseDb >= 0.05
                        ? `noise can explain ${difference.noiseDb.toFixed(1)} dB of it`
                        : undefined
                    }
                  >
                    {formatDb(difference.worstDb, 2)}
                  </td>
                  <td className="num mono">{formatHz(difference.worstAt)}</td>
                </>
              ) : (
                <td className="quiet" colSpan={isPartial ? 4 : 3}>
                  not measured again yet
                </td>
              )}
              <td className="num">
                {saveFilter ? (
                  <button
                    className="linkish"
                    aria-label={`Filter of ${nameOf(id)} as WAV`}
                    onClick={saveFilter}
                  >
                    WAV
                  </button>
                ) : null}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** The same for every spot, once more than one was measured again. */
export function SpotMisses({
  title,
  list,
  spotId,
  nameOf,
  onShow,
}: {
  title: string;
  list: SpotVerdict[];
  spotId: string;
  nameOf: (id: string) => string;
  onShow: (spot: SpotVerdict) => void;
}) {
  if (list.length < 2) return null;
  return (
    <table className="plain" aria-label="At every spot">
      <thead>
        <tr>
          <th>Spot</th>
          <th className="num">Most</th>
          <th>of</th>
          <th className="num">at</th>
          <th className="num">
            <TableMenu table={() => spotTable(title, list, nameOf)} />
          </th>
        </tr>
      </thead>
      <tbody>
        {list.map((s) => (
          <tr key={s.spotId}>
            <td>
              <Shown name={s.name} active={s.spotId === spotId} onShow={() => onShow(s)} />
            </td>
            <td className={`num mono ${s.agrees ? 'good' : 'attention'}`}>{formatDb(s.worst.db, 2)}</td>
            <td>{nameOf(s.worst.id)}</td>
            <td className="num mono">{formatHz(s.worst.at)}</td>
            <td />
          </tr>
        ))}
      </tbody>
    </table>
  );
}
