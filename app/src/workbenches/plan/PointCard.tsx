import type { Project, Seat, Spot } from '@pebble-hall/core/project';
import { NameField } from './NameField';
import { PositionFields } from './PositionFields';
import { editPlace } from './usePlan';

/** A seat or a spot: its name and where it is. */
export function PointCard({ project, point }: { project: Project; point: Seat | Spot }) {
  const isSpot = 'surface' in point;
  const isTaken = project.sweeps.some((s) => s.spotId === point.id);
  const set = (label: string, next: Partial<Seat>) =>
    void editPlace(label, (p) => ({
      ...p,
      seats: p.seats.map((s) => (s.id === point.id ? { ...s, ...next } : s)),
      spots: p.spots.map((s) => (s.id === point.id ? { ...s, ...next } : s)),
    }));
  return (
    <section className="card" aria-label={isSpot ? 'Spot' : 'Seat'}>
      <h2>
        <NameField
          label={isSpot ? 'Name of the spot' : 'Name of the seat'}
          value={point.name}
          onChange={(name) => set(`${point.name} is ${name} now`, { name })}
        />
        <small>
          {point.id === project.place.spots[0]!.id ? 'sets level and delay' : isSpot ? 'spot' : 'seat'}
        </small>
      </h2>
      <PositionFields
        at={point.position}
        unit={project.place.lengthUnit}
        disabled={isTaken}
        onChange={(position) => set(`position of ${point.name}`, { position })}
      />
      {isTaken ? <small className="quiet">It has sweeps, so it stays where they were taken.</small> : null}
    </section>
  );
}
