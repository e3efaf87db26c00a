import { Canvas, type ThreeEvent } from '@react-three/fiber';
import { facetsOf, seatsOrNone } from '@pebble-hall/core/place';
import { pageColour } from '../../parts/scene/pageColour';
import { Camera, type CameraProps } from '../../parts/scene/PlaceCamera';
import { Cabinets, Dots, Face, FixtureBox } from '../../parts/scene/SceneThings';
import type { LookOfUnderlay } from '../../services/underlays';
import { UnderlayModel } from './underlays/UnderlayModel';

export interface PlaceSceneProps extends CameraProps {
  selected: ReadonlySet<string>;
  /** ids of what something is wrong with */
  marked: ReadonlySet<string>;
  /** models that lie under the plan, by their ids */
  seen: ReadonlyMap<string, LookOfUnderlay>;
  onSelect: (id: string, adds: boolean) => void;
}

/** The place in three dimensions, turned by hand. */
export default function PlaceScene(props: PlaceSceneProps) {
  const { place, selected, marked, seen, onSelect } = props;
  const pick = (id: string) => ({
    onClick: (event: ThreeEvent<MouseEvent>) => {
      event.stopPropagation();
      onSelect(id, event.nativeEvent.shiftKey);
    },
  });
  const tint = (id: string, plain: string) =>
    pageColour(selected.has(id) ? '--kelp' : marked.has(id) ? '--buoy' : plain);
  return (
    <Canvas
      gl={{ preserveDrawingBuffer: true }}
      frameloop="demand"
      flat
      camera={{ fov: 50, near: 0.05, far: 5000 }}
      role="img"
      aria-label={`${place.name} in 3D`}
    >
      <ambientLight intensity={1.6} />
      <directionalLight position={[-3, 8, 5]} intensity={1.4} />
      <Camera {...props} />
      {facetsOf(place.shape).map((facet, i) => (
        <Face key={i} facet={facet} />
      ))}
      {place.underlays.map((u) => {
        const look = seen.get(u.id);
        return u.isShown && look?.kind === 'model' ? (
          <UnderlayModel key={u.id} underlay={u} look={look} color={tint(u.id, '--soft')} />
        ) : null;
      })}
      {place.fixtures.map((f) => (
        <group key={f.id} {...pick(f.id)}>
          <FixtureBox fixture={f} color={tint(f.id, '--line')} />
        </group>
      ))}
      {place.audience.map((a) => (
        <group key={a.id} {...pick(a.id)}>
          <Dots
            points={seatsOrNone(a, place.shape).map((seat) => seat.position)}
            radius={0.11}
            color={tint(a.id, '--soft')}
          />
        </group>
      ))}
      {place.seats.map((s) => (
        <group key={s.id} {...pick(s.id)}>
          <Dots points={[s.position]} radius={0.13} color={tint(s.id, '--soft')} />
        </group>
      ))}
      {place.spots.map((s) => (
        <group key={s.id} {...pick(s.id)}>
          <Dots points={[s.position]} radius={0.09} color={tint(s.id, '--trace-gorse')} />
        </group>
      ))}
      {place.loudspeakers.map((l) => (
        <group key={l.id} {...pick(l.id)}>
          <Cabinets loudspeaker={l} color={tint(l.id, '--stone-ink')} />
        </group>
      ))}
    </Canvas>
  );
}
