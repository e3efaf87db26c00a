import { Button } from '@mantine/core';
import { freeBoxesOf, type FreeBox } from '@pebble-hall/core/place';
import { chosenPoints, type Loudspeaker, type Place, type Project } from '@pebble-hall/core/project';
import { lengthText } from '../../drawing';
import { listed } from '../../words/listed';
import { editPlace } from './usePlan';

interface SeveralCardProps {
  project: Project;
  selected: ReadonlySet<string>;
  onSelected: (ids: ReadonlySet<string>) => void;
}

/** Several things at once: what they are, how far they reach, and loudspeakers of one model made one group. */
export function SeveralCard({ project, selected, onSelected }: SeveralCardProps) {
  const { place } = project;
  const points = chosenPoints(place, selected);
  const things = [
    ...place.loudspeakers,
    ...place.seats,
    ...place.spots,
    ...place.audience,
    ...place.fixtures,
  ];
  const names = things.filter((t) => selected.has(t.id)).map((t) => t.name);
  const chosen = place.loudspeakers.filter((l) => selected.has(l.id));
  const measured = new Set(project.sweeps.map((s) => s.loudspeakerId));
  const canGroup =
    chosen.length === selected.size &&
    chosen.length > 1 &&
    chosen.every((l) => l.model === chosen[0]!.model && !l.locked && !measured.has(l.id));
  const reach = (axis: 'x' | 'y' | 'z') => {
    const on = points.map((p) => p.at[axis]);
    return lengthText(Math.max(...on) - Math.min(...on), place.lengthUnit);
  };
  const group = async () => {
    if (await editPlace(`${chosen.length} loudspeakers in one group`, (p) => grouped(p, selected)))
      onSelected(new Set([chosen[0]!.id]));
  };
  return (
    <section className="card" aria-label="Several things" style={{ gridColumn: 'span 2' }}>
      <h2>
        {selected.size} chosen <small>drag one, and all move</small>
      </h2>
      <span>{listed(names, 8)}.</span>
      <span className="quiet">
        They reach over {reach('x')} from front to rear, {reach('y')} across, {reach('z')} in height.
      </span>
      {canGroup ? (
        <div>
          <Button size="compact-sm" variant="default" onClick={() => void group()}>
            Make them one group, on output {chosen[0]!.output}
          </Button>
        </div>
      ) : null}
    </section>
  );
}

/** The chosen loudspeakers as one: the first keeps its name and output, its centre is the middle of all boxes. */
function grouped(place: Place, ids: ReadonlySet<string>): Place {
  const chosen = place.loudspeakers.filter((l) => ids.has(l.id));
  const [first] = chosen as [Loudspeaker, ...Loudspeaker[]];
  const mean = (axis: 'x' | 'y' | 'z') =>
    chosen.reduce((sum, l) => sum + l.position[axis], 0) / chosen.length;
  const centre = { x: mean('x'), y: mean('y'), z: mean('z') };
  // the group lies level and looks as its first one does
  const angle = (first.aimDeg * Math.PI) / 180;
  const boxes = chosen.flatMap((l): FreeBox[] =>
    freeBoxesOf(l.group).map((b) => {
      const turn = ((l.aimDeg - first.aimDeg) * Math.PI) / 180;
      const [ahead, left] = [
        b.ahead * Math.cos(turn) - b.left * Math.sin(turn),
        b.ahead * Math.sin(turn) + b.left * Math.cos(turn),
      ];
      const [dx, dy] = [l.position.x - centre.x, l.position.y - centre.y];
      return {
        ...b,
        ahead: ahead + dx * Math.cos(angle) + dy * Math.sin(angle),
        left: left - dx * Math.sin(angle) + dy * Math.cos(angle),
        up: b.up + l.position.z - centre.z,
        yawDeg: b.yawDeg + l.aimDeg - first.aimDeg,
        pitchDeg: b.pitchDeg + l.pitchDeg,
      };
    }),
  );
  const one: Loudspeaker = {
    ...first,
    position: centre,
    pitchDeg: 0,
    rollDeg: 0,
    group: { kind: 'free', boxes: boxes.slice(0, 64) },
  };
  return {
    ...place,
    loudspeakers: place.loudspeakers.flatMap((l) => (l.id === first.id ? [one] : ids.has(l.id) ? [] : [l])),
  };
}
