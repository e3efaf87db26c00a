import type { Face, Surface } from '@pebble-hall/core/place';
import { OCTAVES } from '@pebble-hall/core/room';
import { axisHz } from '../../charts/chartMath';
import { NumberField } from '../../parts/NumberField';
import { changeSurface } from './changeSurface';

const ROWS = [
  ['absorption', 'Swallows', 'of what comes'],
  ['scattering', 'Scatters', 'of what is left'],
] as const;

/** What one surface swallows and scatters, octave by octave: type it, or step it with the arrow keys. */
export function SharesCard({ surface }: { surface: Surface }) {
  const set = (what: 'absorption' | 'scattering', octave: number, share: number) =>
    void changeSurface(`${surface.name}: ${what}`, surface.key, (face): Face => ({
      ...face,
      [what]: face[what].map((s, o) => (o === octave ? share : s)),
      material: null,
    }));
  return (
    <section className="card" aria-label="Chosen surface" style={{ overflow: 'auto' }}>
      <h2>
        {surface.name}
        <small>{surface.material ?? 'by its own numbers'}</small>
      </h2>
      <table className="plain tight compact-fields narrow" aria-label={`Shares of ${surface.name}`}>
        <thead>
          <tr>
            <th scope="col">share, 0 to 1</th>
            {OCTAVES.map((hz) => (
              <th scope="col" key={hz}>
                {axisHz(hz)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ROWS.map(([what, name, of]) => (
            <tr key={what}>
              <th scope="row" style={{ fontWeight: 400, whiteSpace: 'nowrap' }} title={of}>
                {name}
              </th>
              {OCTAVES.map((hz, o) => (
                <td key={hz}>
                  <NumberField
                    label={`${name} at ${axisHz(hz)} Hz`}
                    value={surface[what][o]!}
                    unit=""
                    digits={2}
                    min={0}
                    max={1}
                    step={0.05}
                    width={48}
                    onChange={(share) => set(what, o, share)}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
