import { Button, Modal, NativeSelect } from '@mantine/core';
import { startingFaces, type RoomMesh } from '@pebble-hall/core/place';
import { MOST_ROOM_FACES, runFaces, type Place, type Underlay } from '@pebble-hall/core/project';
import { useMemo, useState } from 'react';
import { useJob } from '../../services/useJob';
import { faultSentence } from '../../words/faultWords';
import { mendedSentence } from '../../words/meshWords';
import { changePlace } from './changeSurface';
import { talkerPlace } from './newRun';
import { RoomInThree } from './RoomInThree';

interface Props {
  place: Place;
  models: readonly (Underlay & { kind: 'model' })[];
  onClose: () => void;
}

const NO_WAYS: never[] = [];

/** A drawing that lies under the plan, taken as the room: what was mended, what is still wrong with it and where, before it is used. */
export function MeshDialog({ place, models, onClose }: Props) {
  const [id, setId] = useState(models[0]!.id);
  const model = models.find((m) => m.id === id) ?? models[0]!;
  const { fileId, up, unitM, turnDeg, at } = model;
  const asked = useMemo(
    () => ({ fileId, pose: { up, unitM, turnDeg, at } }),
    [fileId, up, unitM, turnDeg, at],
  );
  const { value: found, problem } = useJob('drawings.room', asked);
  const mesh = useMemo(
    (): RoomMesh | null =>
      found && {
        name: model.name,
        surfaces: startingFaces(place.shape, found.names, found.faces),
        faces: found.faces,
        volume: found.volume,
      },
    [found, model.name, place.shape],
  );
  const room = useMemo(() => ({ ...place, roomMesh: mesh }), [place, mesh]);
  const faces = useMemo(() => (mesh ? runFaces(room) : []), [mesh, room]);
  const position = useMemo(() => talkerPlace(place), [place]);
  const isTooMuch = faces.length > MOST_ROOM_FACES;
  const check = useJob(
    'rays.check',
    mesh && !isTooMuch
      ? { faces, sources: [{ name: 'Where a talker would stand', position }], receivers: [] }
      : null,
  );
  const faults = check.value ?? [];
  const isUsable = mesh !== null && !isTooMuch && mesh.volume > 0 && check.value !== null;
  const use = async () => {
    onClose();
    await changePlace(`${model.name} as the room`, (p) => ({ ...p, roomMesh: mesh }));
  };
  return (
    <Modal opened onClose={onClose} title="A drawing as the room" size={980} centered>
      <div style={{ display: 'grid', gap: 12 }}>
        {models.length > 1 ? (
          <NativeSelect
            size="xs"
            aria-label="Drawing"
            data={models.map((m) => ({ value: m.id, label: m.name }))}
            value={id}
            onChange={(e) => setId(e.currentTarget.value)}
          />
        ) : null}
        {problem ? <p role="alert">{problem}</p> : null}
        {!found && !problem ? (
          <p role="status" className="quiet">
            Reading its faces …
          </p>
        ) : null}
        {mesh && found ? (
          <>
            <div style={{ position: 'relative', height: 330 }}>
              <RoomInThree
                place={room}
                chosen={null}
                swallows={null}
                ways={NO_WAYS}
                source={position}
                receiver={null}
                marks={faults.map((f) => f.at)}
              />
            </div>
            <section aria-label="What was found" style={{ display: 'grid', gap: 4 }}>
              <span>{`${faces.length.toLocaleString('en')} faces in ${mesh.surfaces.length} surfaces around ${mesh.volume.toFixed(0)} m³.`}</span>
              <span>{mendedSentence(found.mended)}</span>
              {isTooMuch ? (
                <span role="alert" className="attention">
                  {`Up to ${MOST_ROOM_FACES.toLocaleString('en')} faces are modelled. Save it without furniture and fittings, lay that under the plan, and take it.`}
                </span>
              ) : null}
              {faults.map((fault, i) => (
                <span key={i} role="alert" className="attention">
                  {faultSentence(
                    fault,
                    faces.map((f) => f.name),
                    place.lengthUnit,
                  )}
                </span>
              ))}
              {check.value && faults.length === 0 ? (
                <span>Nothing is wrong with it: no ray gets out from where a talker would stand.</span>
              ) : null}
              <small className="quiet">
                Runs, reverberation and arrivals take it in place of what is drawn; the plan, its seats and
                its level map stay as they are. Its surfaces swallow as floor, walls and roof do now, until
                you say otherwise.
              </small>
            </section>
          </>
        ) : null}
        <div style={{ display: 'flex', justifyContent: 'flex-end', gap: 8 }}>
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button disabled={!isUsable} onClick={() => void use()}>
            {faults.length > 0 ? 'Use it all the same' : 'Use it'}
          </Button>
        </div>
      </div>
    </Modal>
  );
}
