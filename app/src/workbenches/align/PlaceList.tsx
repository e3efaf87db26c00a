import { Button } from '@mantine/core';
import type { MeetingPlace } from '@pebble-hall/core/coverage';
import type { Point } from '@pebble-hall/core/geometry';
import { freeName, type AlignStep, type Project, type Spot } from '@pebble-hall/core/project';
import { NEAR_SPOTS_M } from '@pebble-hall/core/spots';
import { lengthText } from '../../drawing';
import type { AlignedPoint } from '../../services/alignSources';
import { changeProject } from '../../services/changeProject';
import { notify } from '../../services/notify';
import { placeWords } from '../../words/alignWords';
import { changeStep } from './changeAlign';
import { isAt } from './WhereView';

interface Props {
  project: Project;
  step: AlignStep;
  points: readonly AlignedPoint[];
  onPoint: (index: number) => void;
  places: readonly MeetingPlace[];
  /** names of what stands still, and of what is moved */
  still: string;
  moved: string;
  /** whether a place needs no microphone that was there: it is told by models */
  isModelled: boolean;
}

/** Places to bring the two together at, each with its reason and how far away both are. */
export function PlaceList({ project, step, points, onPoint, places, still, moved, isModelled }: Props) {
  const { lengthUnit } = project.place;
  const choose = (place: MeetingPlace) =>
    changeStep('place to align', step.id, (s) => ({
      ...s,
      aim: 'place',
      alignAt: { position: place.at, reason: placeWords(place.reason) },
    })).then((done) => done && onPoint(isModelled ? 0 : (nearestTo(points, place)?.index ?? 0)));
  return (
    <>
      <h2>Places to align at</h2>
      {places.length === 0 ? (
        <span className="quiet">
          In the audience the two are nowhere equally loud, and nowhere arrive together.
        </span>
      ) : null}
      <div role="group" aria-label="Places to align at" style={{ display: 'grid', gap: 6 }}>
        {places.map((place, i) => {
          const nearest = isModelled ? null : nearestTo(points, place);
          return (
            <button
              key={place.reason}
              className="chip"
              aria-pressed={isAt(step, place.at)}
              style={{ display: 'block', textAlign: 'left', padding: '6px 10px', whiteSpace: 'normal' }}
              onClick={() => void choose(place)}
            >
              <span style={{ fontWeight: 600 }}>
                {i + 1}. {placeWords(place.reason)}
              </span>
              <br />
              <small>
                {lengthText(place.firstM, lengthUnit)} to {still}, {lengthText(place.secondM, lengthUnit)} to{' '}
                {moved}
                {nearest ? `; ${nearest.name} is ${lengthText(nearest.metres, lengthUnit)} from it` : ''}
              </small>
            </button>
          );
        })}
      </div>
      {step.alignAt ? (
        <div className="row" style={{ gap: 6 }}>
          <Button
            size="compact-xs"
            variant="default"
            onClick={() =>
              void changeStep('over all seats again', step.id, (s) => ({
                ...s,
                alignAt: null,
                aim: s.aim === 'place' ? 'mean' : s.aim,
              })).then((done) => done && onPoint(0))
            }
          >
            {isModelled ? 'Over all seats again' : 'Over all spots again'}
          </Button>
          {spotAt(project, step.alignAt.position) ? null : (
            <Button
              size="compact-xs"
              variant="default"
              title="A spot for the microphone there: sweep its channels at it in Mic walk"
              onClick={() => void makeSpot(step, step.alignAt!.position)}
            >
              Make it a spot
            </Button>
          )}
        </div>
      ) : null}
    </>
  );
}

const spotAt = ({ place }: Project, { x, y }: Point) =>
  place.spots.find((s) => Math.hypot(s.position.x - x, s.position.y - y) < NEAR_SPOTS_M);

/** A spot of the walk at the place to align, so that what was found by models is measured there. */
const makeSpot = (step: AlignStep, at: Point) =>
  changeProject('a spot at the place to align', (p) => {
    const name = freeName(
      `For ${step.name}`.slice(0, 80),
      p.place.spots.map((s) => s.name),
    );
    const cm = (v: number) => Math.round(100 * v) / 100;
    const spot: Spot = {
      id: crypto.randomUUID(),
      name,
      position: { x: cm(at.x), y: cm(at.y), z: cm(at.z) },
      inAverage: true,
      weight: 1,
      surface: 'ear',
    };
    return { ...p, place: { ...p.place, spots: [...p.place.spots, spot] } };
  }).then(
    (done) => done && notify('It stands in Mic walk as a spot: sweep the channels of this step there.'),
  );

/** The spot that is nearest to a place, seen from above. */
function nearestTo(points: readonly AlignedPoint[], { at }: MeetingPlace) {
  const far = points.flatMap(({ name, position }, index) =>
    position ? [{ name, index, metres: Math.hypot(position.x - at.x, position.y - at.y) }] : [],
  );
  return far.reduce<(typeof far)[number] | null>((a, b) => (a && a.metres <= b.metres ? a : b), null);
}
