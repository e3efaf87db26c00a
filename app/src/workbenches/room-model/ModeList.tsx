import { isWithin } from '@pebble-hall/core/geometry';
import type { Place } from '@pebble-hall/core/project';
import { seatsOfPlace } from '@pebble-hall/core/place';
import { formatHz } from '../../charts/chartMath';
import { leastWords, modeWords } from '../../words/roomModelWords';
import type { Mode, Modes } from './useModes';

interface Props {
  place: Place;
  modes: Modes;
  /** index of the one that is drawn; null for none */
  chosen: number | null;
  onChoose: (index: number | null) => void;
}

/** Of more seats every so manieth is looked at. */
const MOST_SEATS = 200;

/** The lowest modes of a place, each with where it stands and where it is heard least. */
export function ModeList({ place, modes, chosen, onChoose }: Props) {
  const heard = [...seatsOfPlace(place, MOST_SEATS), ...place.spots].filter(({ position }) =>
    isWithin(place.shape.outline, position),
  );
  const leastAt = (mode: Mode) =>
    heard
      .map(({ name, position }) => ({ name, p: modes.pressure(mode, position) }))
      .reduce<{ name: string; p: number } | null>(
        (a, b) => (a && Math.abs(a.p) <= Math.abs(b.p) ? a : b),
        null,
      );
  return (
    <>
      <h2>
        Its modes
        <small>
          {modes.endsAtHz ? `hard walls, up to ${formatHz(modes.endsAtHz)}` : 'hard walls; click to see one'}
        </small>
      </h2>
      <div role="group" aria-label="Modes" style={{ display: 'grid', gap: 4 }}>
        {modes.list.map((mode, i) => {
          const least = leastAt(mode);
          return (
            <button
              key={i}
              className="chip"
              aria-pressed={i === chosen}
              style={{ display: 'block', textAlign: 'left', padding: '4px 10px', whiteSpace: 'normal' }}
              onClick={() => onChoose(i === chosen ? null : i)}
            >
              <b>{formatHz(mode.hz)}</b> {modeWords(mode)}
              {least ? (
                <>
                  <br />
                  <small>{leastWords(least.name, least.p)}</small>
                </>
              ) : null}
            </button>
          );
        })}
      </div>
    </>
  );
}
