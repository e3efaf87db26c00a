import { Button, NumberInput, SegmentedControl } from '@mantine/core';
import { fitPositions, LOW_DISTANCE_M } from '@pebble-hall/core/commissioning';
import { isWithin } from '@pebble-hall/core/geometry';
import { speedOfSound } from '@pebble-hall/core/room';
import { useState } from 'react';
import { Note } from '../../../parts/Note';
import { NumberField } from '../../../parts/NumberField';
import { PlaceDrawing, unitM } from '../../../drawing';
import { notify, notifyProblem } from '../../../services/notify';
import {
  distanceProblems,
  pairsOf,
  placesOf,
  problemSentence,
  withDistance,
  type PairOfPlaces,
} from './distanceList';
import type { ViewProps } from '../viewProps';
import { NEAR_M, useDistanceWork } from './useDistanceWork';

/** How far it is from loudspeaker to loudspeaker and to the home spot: typed, heard, in the plan. */
export default function DistancesView({ project, change, guarded, busy }: ViewProps) {
  const places = placesOf(project);
  const [from, setFrom] = useState(places.at(-1)!.id);
  const work = useDistanceWork(project, change, guarded);
  const unit = project.place.lengthUnit;
  const scale = unitM(unit);
  const length = (m: number) => `${(m / scale).toFixed(2)} ${unit}`;
  const nameOf = (id: string) => places.find((p) => p.id === id)?.name ?? id;
  const pairs = pairsOf(project);
  const chosen = places.find((p) => p.id === from) ?? places.at(-1)!;
  const shown = pairs.filter((p) => p.a === chosen.id || p.b === chosen.id);
  const problems = distanceProblems(project);
  const known = pairs.flatMap(({ a, b, usedM }) => (usedM === null ? [] : [{ a, b, metres: usedM }]));
  const set = (pair: PairOfPlaces, next: Parameters<typeof withDistance>[3]) =>
    void change(`distance ${nameOf(pair.a)} to ${nameOf(pair.b)}`, (p) => ({
      ...p,
      rig: { ...p.rig, distances: withDistance(p.rig.distances, pair.a, pair.b, next) },
    }));
  const home = places.at(-1)!;
  const heard = (id: string) => Object.keys(project.rig.heardTraces[id] ?? {}).length > 0;
  const missing = places.filter((p) => !heard(p.id)).map((p) => p.id);
  const applyToPlan = async () => {
    const impossible = problems.find((x) => x.kind === 'triangle');
    if (impossible)
      return notifyProblem(
        `These distances cannot all be right: ${nameOf(impossible.a)} to ${nameOf(impossible.b)}. Measure or type it again, then apply them.`,
      );
    const points = Object.fromEntries(places.map((p) => [p.id, p.position]));
    const { points: fitted, rmsM } = fitPositions(points, known, [home.id]);
    const { outline } = project.place.shape;
    const outside = Object.entries(fitted).find(([, p]) => !isWithin(outline, p));
    if (outside)
      return notifyProblem(
        `The distances would put ${nameOf(outside[0])} outside the room. Check those to ${nameOf(outside[0])}, and the size of the room.`,
      );
    const done = await change('places from distances', (p) => ({
      ...p,
      place: {
        ...p.place,
        loudspeakers: p.place.loudspeakers.map((l) => (fitted[l.id] ? { ...l, position: fitted[l.id]! } : l)),
      },
    }));
    if (done)
      notify(`The plan has the loudspeakers where the distances put them; they fit within ${length(rmsM)}.`);
  };
  return (
    <div className="view" style={{ gridTemplateColumns: 'minmax(0, 1fr) 456px' }}>
      <div className="plot">
        <div style={{ position: 'absolute', inset: '8px 10px 4px' }}>
          <PlaceDrawing
            place={{ ...project.place, spots: project.place.spots.slice(0, 1) }}
            stateOf={() => 'empty'}
            lines={shown.map((p) => ({
              from: places.find((q) => q.id === p.a)!.position,
              to: places.find((q) => q.id === p.b)!.position,
              label: length(p.usedM ?? p.planM),
              attention: problems.some((x) => x.a === p.a && x.b === p.b),
              faint: p.usedM === null,
            }))}
          />
        </div>
      </div>
      <section className="notes" aria-label="Distances" style={{ gap: 7 }}>
        <div className="chips" style={{ flexWrap: 'wrap', rowGap: 5 }}>
          {places.map((p) => (
            <button
              key={p.id}
              className="chip"
              style={{ padding: '2px 9px' }}
              aria-pressed={p.id === chosen.id}
              onClick={() => setFrom(p.id)}
            >
              {p.name}
            </button>
          ))}
        </div>
        <table className="plain" aria-label={`Distances from ${chosen.name}`}>
          <thead>
            <tr>
              <th>From {chosen.name} to</th>
              <th className="num">plan</th>
              <th className="num">heard</th>
              <th className="num">typed</th>
              <th className="num">set by hand</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((p) => {
              const other = nameOf(p.a === chosen.id ? p.b : p.a);
              return (
                <tr key={`${p.a} ${p.b}`}>
                  <td>{other}</td>
                  <td className="num mono">{length(p.planM)}</td>
                  <td className="num mono">{p.heardM === null ? '–' : length(p.heardM)}</td>
                  <td className="num">
                    <Length
                      label={`Typed to ${other}`}
                      metres={p.typedM}
                      scale={scale}
                      onChange={(typedM) => set(p, { typedM })}
                    />
                  </td>
                  <td className="num">
                    <Length
                      label={`Set by hand to ${other}`}
                      metres={p.adjustedM}
                      scale={scale}
                      onChange={(adjustedM) => set(p, { adjustedM })}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        {problems.map((p, i) => (
          <Note key={i} number={i + 1} attention>
            {problemSentence(p, nameOf, length)}
          </Note>
        ))}
        {problems.length === 0 ? (
          <span className="quiet">
            {known.length === 0
              ? 'Nothing is typed or heard yet; the lines show the plan.'
              : `${known.length} of ${pairs.length} distances are known, and they fit together.`}
          </span>
        ) : null}
      </section>
      <div className="shore" style={{ gridColumn: '1 / 3', gridTemplateColumns: '1fr 1.5fr 1fr' }}>
        <section className="card" aria-label="Speed of sound">
          <h2>
            Speed of sound <small>{speedOfSound(project.place.temperatureC).toFixed(1)} m/s</small>
          </h2>
          <div className="row">
            <span>Temperature of the air</span>
            <NumberField
              label="Temperature"
              value={project.place.temperatureC}
              unit="°C"
              min={-20}
              max={50}
              step={0.5}
              width={84}
              onChange={(temperatureC) =>
                void change(`${temperatureC} °C`, (p) => ({ ...p, place: { ...p.place, temperatureC } }))
              }
            />
          </div>
          <div className="row">
            <span>Lengths in</span>
            <SegmentedControl
              size="xs"
              aria-label="Unit of length"
              data={[
                { value: 'm', label: 'metres' },
                { value: 'ft', label: 'feet' },
              ]}
              value={unit}
              onChange={(value) =>
                void change(value === 'ft' ? 'lengths in feet' : 'lengths in metres', (p) => ({
                  ...p,
                  place: { ...p.place, lengthUnit: value as 'm' | 'ft' },
                }))
              }
            />
          </div>
        </section>
        <section className="card" aria-label="By sound">
          <h2>
            By sound{' '}
            <small>
              {places.length - missing.length} of {places.length} places heard
            </small>
          </h2>
          <span className="quiet">
            Hold the microphone {100 * NEAR_M} cm in front of each loudspeaker in turn, then at the home spot;
            all of them sound each time. Subwoofers are heard within {LOW_DISTANCE_M} m only: use the tape for
            them.
          </span>
          <div style={{ display: 'flex', gap: 8, flexWrap: 'wrap' }}>
            <Button size="compact-sm" disabled={busy} onClick={() => work.hear([chosen.id])}>
              Measure {chosen.id === home.id ? 'from' : 'close to'}{' '}
              {chosen.id === home.id ? 'the home spot' : chosen.name}
            </Button>
            {project.rig.kind === 'simulated' ? (
              <Button
                size="compact-sm"
                variant="default"
                disabled={busy || missing.length === 0}
                onClick={() => work.hear(missing)}
              >
                Hear from all places that are left
              </Button>
            ) : null}
          </div>
        </section>
        <section className="card" aria-label="Apply to plan">
          <h2>Into the plan</h2>
          <span className="quiet">
            Moves the loudspeakers to where the distances put them; the home spot and all heights stay. Undo
            takes it back.
          </span>
          <Button
            size="compact-sm"
            variant="default"
            disabled={busy || known.length === 0}
            onClick={() => void applyToPlan()}
          >
            Apply to plan
          </Button>
        </section>
      </div>
    </div>
  );
}

/** A length that may be absent; shown in the chosen unit, kept in metres. */
function Length({
  label,
  metres,
  scale,
  onChange,
}: {
  label: string;
  metres: number | null;
  scale: number;
  onChange: (metres: number | null) => void;
}) {
  const [draft, setDraft] = useState<number | string | null>(null);
  const settle = () => {
    if (draft === null) return;
    const value = Number(draft);
    setDraft(null);
    if (draft === '') return onChange(null);
    if (Number.isFinite(value) && value > 0 && value * scale <= 1000) onChange(value * scale);
  };
  return (
    <NumberInput
      aria-label={label}
      size="xs"
      w={76}
      hideControls
      decimalScale={2}
      value={draft ?? (metres === null ? '' : Number((metres / scale).toFixed(2)))}
      onChange={setDraft}
      onBlur={settle}
      onKeyDown={(e) => e.key === 'Enter' && settle()}
      classNames={{ input: 'mono' }}
      styles={{ input: { textAlign: 'right' } }}
    />
  );
}
