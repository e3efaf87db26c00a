import { Button, Modal } from '@mantine/core';
import { withRoomSurface, type Surface } from '@pebble-hall/core/place';
import { OCTAVES, tuneAbsorption, type Air } from '@pebble-hall/core/room';
import { useMemo, useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import { octaveText } from '../../words/runWords';
import { changePlace } from './changeSurface';
import { withKept } from './surfaceVariants';

interface Props {
  surfaces: readonly Surface[];
  volume: number;
  air: Air;
  /** measured per octave, seconds; NaN where it was not */
  measured: readonly number[];
  /** what statistics say now */
  now: readonly number[];
  /** by how much longer than statistics say the rays of a run make it, per octave; 1 where there is no run */
  longer: readonly number[];
  onClose: () => void;
}

const USUAL_PERCENT = 30;
const MOST_PERCENT = 300;
const seconds = (s: number) => (Number.isFinite(s) ? s.toFixed(2) : '–');

/** What surfaces swallow, tuned until the room rings as it was measured: shown surface by surface before it is used. */
export function TuneDialog({ surfaces, volume, air, measured, now, longer, onClose }: Props) {
  const [percent, setPercent] = useState(USUAL_PERCENT);
  const tuned = useMemo(
    () =>
      tuneAbsorption(
        surfaces,
        volume,
        air,
        measured.map((t, o) => t / longer[o]!),
        percent / 100,
      ),
    [surfaces, volume, air, measured, longer, percent],
  );
  const reached = tuned.eyring.map((t, o) => t * longer[o]!);
  const before = now.map((t, o) => t * longer[o]!);
  const short = OCTAVES.filter((_, o) => Math.abs(reached[o]! / measured[o]! - 1) > 0.02);
  const use = async () => {
    onClose();
    await changePlace('surfaces tuned to the walk', (place) => {
      const tunedPlace = surfaces.reduce(
        (p, s, i) =>
          withRoomSurface(p, s.key, (face) => ({
            ...face,
            absorption: tuned.absorption[i]!.map((a) => Math.round(1000 * a) / 1000),
            material: null,
          })),
        withKept(place, 'Before tuning'),
      );
      return withKept(tunedPlace, 'Tuned to the walk');
    });
  };
  const isTraced = longer.some((v) => v !== 1);
  return (
    <Modal opened onClose={onClose} title="Surfaces tuned to the walk" size={1120} centered>
      <div style={{ display: 'grid', gap: 12 }}>
        <div className="row">
          <span>What they swallow may be wrong by</span>
          <NumberField
            label="May be wrong by"
            value={percent}
            unit="%"
            digits={0}
            min={1}
            max={MOST_PERCENT}
            step={5}
            onChange={setPercent}
          />
        </div>
        <table className="figures" aria-label="Tuned surfaces" style={{ fontSize: 11.5 }}>
          <thead>
            <tr>
              <th scope="col">Swallows, before and after</th>
              {OCTAVES.map((hz, o) => (
                <th key={hz} scope="col">
                  {octaveText(o)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {surfaces.map((s, i) => (
              <tr key={s.key}>
                <th scope="row">{s.name}</th>
                {OCTAVES.map((hz, o) => (
                  <td key={hz} className="mono" style={{ padding: '2px 4px' }}>
                    {`${s.absorption[o]!.toFixed(2)} → ${tuned.absorption[i]![o]!.toFixed(2)}`}
                  </td>
                ))}
              </tr>
            ))}
            {(
              [
                ['Measured, s', measured],
                ['Modelled before, s', before],
                ['Modelled after, s', reached],
              ] as const
            ).map(([name, values]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {OCTAVES.map((hz, o) => (
                  <td key={hz} className="mono">
                    {seconds(values[o]!)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <small className="quiet">
          {isTraced
            ? 'By Eyring, scaled by what the rays of the shown run make of it: run it again to see.'
            : 'By Eyring: run it to see what rays make of it.'}{' '}
          All surfaces are changed by the same factor in an octave: decays alone do not tell which of them was
          wrong. Runs that are there keep the surfaces that they were made with; before and after are kept as
          variants.
        </small>
        {short.length > 0 ? (
          <p role="alert" style={{ margin: 0 }}>
            {`Within these bounds ${short.map((hz) => octaveText(OCTAVES.indexOf(hz))).join(', ')} cannot be reached: what is measured there has another reason, or the shares are further off.`}
          </p>
        ) : null}
        <div style={{ display: 'flex', justifyContent: 'flex-end', gap: 8 }}>
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button onClick={() => void use()}>Use them</Button>
        </div>
      </div>
    </Modal>
  );
}
