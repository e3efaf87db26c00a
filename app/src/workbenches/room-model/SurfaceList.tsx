import { NativeSelect } from '@mantine/core';
import type { Surface, SurfaceKey } from '@pebble-hall/core/place';
import { unitM } from '../../drawing';
import type { Place } from '@pebble-hall/core/project';
import { makeOf } from './changeSurface';
import { isKnown, materialChoices, OWN_NUMBERS } from './materialChoices';

interface Props {
  place: Place;
  surfaces: readonly Surface[];
  chosen: SurfaceKey;
  onChoose: (key: SurfaceKey) => void;
}

/** All surfaces with their areas, what they are made of, and how much they swallow. */
export function SurfaceList({ place, surfaces, chosen, onChoose }: Props) {
  const data = materialChoices(place.materials);
  const swallowed = surfaces.reduce((sum, s) => sum + s.area * s.absorption[4]!, 0);
  const scale = unitM(place.lengthUnit) ** 2;
  return (
    <section className="card" aria-label="Surfaces" style={{ overflow: 'auto' }}>
      <h2>
        Surfaces<small>what swallows how much at 1 kHz</small>
      </h2>
      <table className="plain tight compact-fields" aria-label="Surfaces">
        <thead>
          <tr>
            <th scope="col">surface</th>
            <th scope="col">{place.lengthUnit === 'ft' ? 'sq ft' : 'm²'}</th>
            <th scope="col">made of</th>
            <th scope="col">of all</th>
          </tr>
        </thead>
        <tbody>
          {surfaces.map((s) => (
            <tr key={s.key} aria-selected={s.key === chosen} className={s.key === chosen ? 'chosen' : ''}>
              <td>
                <button
                  className="linkish"
                  aria-pressed={s.key === chosen}
                  style={{ fontWeight: s.key === chosen ? 700 : 400, textAlign: 'left' }}
                  onClick={() => onChoose(s.key)}
                >
                  {s.name}
                </button>
              </td>
              <td className="mono">{(s.area / scale).toFixed(0)}</td>
              <td>
                <NativeSelect
                  size="xs"
                  aria-label={`What ${s.name} is made of`}
                  data={data}
                  value={isKnown(place, s.material) ? s.material! : OWN_NUMBERS}
                  onChange={(e) => makeOf(place, s, e.currentTarget.value)}
                />
              </td>
              <td className="mono" style={{ whiteSpace: 'nowrap' }}>
                {swallowed > 0 ? Math.round((100 * s.area * s.absorption[4]!) / swallowed) : 0} %
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
