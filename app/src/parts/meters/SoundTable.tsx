import type { LiveFrame } from '@pebble-hall/core/live';
import { WEIGHTINGS } from '@pebble-hall/core/level';
import { figureOf } from './soundFigures';

/** Sound levels as they are: Fast, Slow, equivalent, largest and peak, by each weighting. */
export function SoundTable({ sound, offsetDb }: { sound: LiveFrame['sound']; offsetDb: number | null }) {
  return (
    <table className="plain" aria-label="Sound levels now">
      <thead>
        <tr>
          <th scope="col">{offsetDb === null ? 'dB re full scale' : 'dB SPL'}</th>
          <th scope="col">Fast</th>
          <th scope="col">Slow</th>
          <th scope="col">equivalent</th>
          <th scope="col">largest, Fast</th>
          <th scope="col">peak</th>
        </tr>
      </thead>
      <tbody className="mono">
        {WEIGHTINGS.map((w) => {
          const now = sound?.[w];
          return (
            <tr key={w}>
              <th scope="row">{w}</th>
              <td>{figureOf(now?.fastDb, offsetDb)}</td>
              <td>{figureOf(now?.slowDb, offsetDb)}</td>
              <td>{figureOf(now?.leqDb, offsetDb)}</td>
              <td>{figureOf(now?.maxDb.Fast, offsetDb)}</td>
              <td>{figureOf(now?.peakDb, offsetDb)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
