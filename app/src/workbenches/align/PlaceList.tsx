import { Button } from '@mantine/core';
import type { MeetingPlace } from '@pebble-hall/core/coverage';
import type { AlignStep, Project } from '@pebble-hall/core/project';
import { lengthText } from '../../drawing';
import type { AlignedPoint } from '../../services/alignSources';
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
    })).then((done) => done && onPoint(0));
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
              aria-pressed={isModelled && isAt(step, place.at)}
              style={{ display: 'block', textAlign: 'left', padding: '6px 10px', whiteSpace: 'normal' }}
              onClick={() => (nearest ? onPoint(nearest.index) : void choose(place))}
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
      {isModelled && step.alignAt ? (
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
          Over all seats again
        </Button>
      ) : null}
    </>
  );
}

/** The spot that is nearest to a place, seen from above. */
function nearestTo(points: readonly AlignedPoint[], { at }: MeetingPlace) {
  const far = points.flatMap(({ name, position }, index) =>
    position ? [{ name, index, metres: Math.hypot(position.x - at.x, position.y - at.y) }] : [],
  );
  return far.reduce<(typeof far)[number] | null>((a, b) => (a && a.metres <= b.metres ? a : b), null);
}
