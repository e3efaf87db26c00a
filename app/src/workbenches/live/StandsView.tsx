import { Checkbox } from '@mantine/core';
import type { Point } from '@pebble-hall/core/geometry';
import type { Project, Spot } from '@pebble-hall/core/project';
import { useMemo, useState } from 'react';
import { PlaceDrawing } from '../../drawing';
import {
  onPracticeFaults,
  practiceFaults,
  ROOM_SOUNDS,
  setPracticeFaults,
  type RoomSound,
} from '../../ports/rig';
import { moveStand } from '../../services/liveSession';
import { standOf } from '../../services/liveSettings';
import { changeLive } from './changeLive';
import { useEffect } from 'react';

const NONE: ReadonlySet<string> = new Set();
const SOUND_WORDS: Record<RoomSound, string> = {
  audience: 'audience talking',
  bar: 'bar being set up',
  fan: 'fan over the stage',
  train: 'passing train',
};

/** Where the microphones stand: of a simulated place what is heard moves with them. */
export function StandsView({ project }: { project: Project }) {
  const [held, setHeld] = useState<{ id: string; at: Point } | null>(null);
  const { rig, place } = project;
  // microphones take the place of spots in the drawing
  const drawn = useMemo(() => {
    const spots = rig.microphones.map((m): Spot => ({
      id: m.id,
      name: `${m.make} ${m.serial}`.trim(),
      position: held?.id === m.id ? held.at : standOf(project, m.id),
      inAverage: true,
      weight: 1,
      surface: 'ear',
    }));
    return { ...place, spots };
  }, [place, rig.microphones, project, held]);
  const isSimulated = rig.kind === 'simulated';
  return (
    <div
      style={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) auto', height: '100%', minHeight: 0 }}
    >
      <PlaceDrawing
        place={drawn}
        stateOf={() => 'now'}
        selected={NONE}
        onSelect={() => {}}
        caption=""
        onDrag={(thing, _, to, done) => {
          if (thing.kind !== 'spot') return;
          const at = { ...to, z: standOf(project, thing.id).z };
          setHeld(done ? null : { id: thing.id, at });
          moveStand(thing.id, at);
          if (done)
            void changeLive('microphone moved', (live) => ({
              ...live,
              stands: { ...live.stands, [thing.id]: at },
            }));
        }}
      />
      {isSimulated ? <RoomSoundsChoice /> : null}
    </div>
  );
}

/** What goes on in the simulated place beside the measurement, to practise with. */
function RoomSoundsChoice() {
  const [sounds, setSounds] = useState(() => practiceFaults().sounds);
  useEffect(() => onPracticeFaults(() => setSounds(practiceFaults().sounds)), []);
  return (
    <fieldset
      style={{
        border: 0,
        margin: 0,
        padding: '22px 18px 0 0',
        display: 'grid',
        gap: 4,
        alignContent: 'start',
      }}
    >
      <legend className="quiet" style={{ fontSize: 12 }}>
        Practise with
      </legend>
      {ROOM_SOUNDS.map((sound) => (
        <Checkbox
          key={sound}
          size="xs"
          label={SOUND_WORDS[sound]}
          checked={sounds.includes(sound)}
          onChange={(e) =>
            setPracticeFaults({
              ...practiceFaults(),
              sounds: e.currentTarget.checked ? [...sounds, sound] : sounds.filter((s) => s !== sound),
            })
          }
        />
      ))}
    </fieldset>
  );
}
