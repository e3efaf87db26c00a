import { Canvas } from '@react-three/fiber';
import { distanceBetween, type Point } from '@pebble-hall/core/geometry';
import { seatsOrNone, type Facet, type SurfaceKey, roomFacets } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import { useEffect, useMemo } from 'react';
import { LineCurve3, TubeGeometry } from 'three';
import { pageColour } from '../../parts/scene/pageColour';
import { Camera, inScene } from '../../parts/scene/PlaceCamera';
import { Dots, Face } from '../../parts/scene/SceneThings';

/** A way of sound, corner by corner. */
export interface SceneWay {
  points: readonly Point[];
  isChosen: boolean;
}

export interface RoomSceneProps {
  place: Place;
  /** changes when all of it shall be seen again */
  fitted: number;
  /** the surface that is chosen; null for none */
  chosen: SurfaceKey | null;
  /** how much a face swallows, 0 to 1: it is drawn the fuller; null draws all alike */
  swallows: ((face: Facet) => number) | null;
  onSurface?: (key: SurfaceKey) => void;
  ways: readonly SceneWay[];
  source: Point | null;
  receiver: Point | null;
  /** what is wrong with it lies there */
  marks?: readonly Point[];
}

const NO_MARKS: readonly Point[] = [];

/** Thickness of a way, as a share of how far the room reaches. */
const [CHOSEN, OTHER] = [0.003, 0.0009];

/** The room in three dimensions: its surfaces as they swallow, and ways of sound between a source and a receiver. */
export default function RoomScene(props: RoomSceneProps) {
  const { place, fitted, chosen, swallows, onSurface, ways, source, receiver, marks = NO_MARKS } = props;
  const facets = useMemo(() => roomFacets(place), [place]);
  const bounds = useMemo(() => boundsOf(facets), [facets]);
  const reach = distanceBetween(bounds.least, bounds.most);
  const seats = useMemo(
    () => [
      ...place.seats.map((s) => s.position),
      ...place.audience.flatMap((a) => seatsOrNone(a, place.shape).map((s) => s.position)),
    ],
    [place],
  );
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
      <Camera place={place} stand="outside" fitted={fitted} reach={place.roomMesh ? bounds : undefined} />
      {facets.map((facet, i) => {
        const { key } = facet;
        const isChosen = key === chosen;
        return (
          <Face
            key={i}
            facet={facet}
            color={pageColour(isChosen ? '--buoy' : swallows ? '--kelp' : '--stone')}
            opacity={isChosen ? 0.5 : swallows ? 0.06 + 0.6 * swallows(facet) : undefined}
            onPick={onSurface && (() => onSurface(key))}
          />
        );
      })}
      <Dots points={seats} radius={0.004 * reach} color={pageColour('--soft')} />
      {ways.map(({ points, isChosen }, i) => (
        <Way
          key={i}
          points={points}
          radius={(isChosen ? CHOSEN : OTHER) * reach}
          colour={isChosen ? '--buoy' : '--stone-ink'}
        />
      ))}
      {marks.length > 0 ? <Dots points={marks} radius={0.016 * reach} color={pageColour('--buoy')} /> : null}
      {source ? <Dots points={[source]} radius={0.011 * reach} color={pageColour('--kelp')} /> : null}
      {receiver ? <Dots points={[receiver]} radius={0.011 * reach} color={pageColour('--ink')} /> : null}
    </Canvas>
  );
}

/** A way as a thin tube along its straight parts. */
function Way({ points, radius, colour }: { points: readonly Point[]; radius: number; colour: string }) {
  const parts = useMemo(() => {
    const corners = points.map(inScene);
    return corners.slice(1).map((to, i) => new TubeGeometry(new LineCurve3(corners[i]!, to), 1, radius, 6));
  }, [points, radius]);
  useEffect(() => () => parts.forEach((p) => p.dispose()), [parts]);
  return parts.map((geometry, i) => (
    <mesh key={i} geometry={geometry}>
      <meshBasicMaterial color={pageColour(colour)} />
    </mesh>
  ));
}

/** What a room lies within. */
function boundsOf(facets: readonly Facet[]): { least: Point; most: Point } {
  const all = facets.flatMap((f) => f.corners);
  const of = (by: (...values: number[]) => number): Point => ({
    x: by(...all.map((p) => p.x)),
    y: by(...all.map((p) => p.y)),
    z: by(...all.map((p) => p.z)),
  });
  return { least: of(Math.min), most: of(Math.max) };
}
