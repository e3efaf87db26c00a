import { useThree, type ThreeEvent } from '@react-three/fiber';
import type { Point } from '@pebble-hall/core/geometry';
import { boxesOf, type Facet } from '@pebble-hall/core/place';
import type { Fixture, Loudspeaker } from '@pebble-hall/core/project';
import { useEffect, useLayoutEffect, useMemo, useRef } from 'react';
import {
  BufferGeometry,
  type Color,
  DoubleSide,
  Float32BufferAttribute,
  InstancedMesh,
  Matrix4,
  Quaternion,
  ShapeUtils,
  Vector2,
  Vector3,
} from 'three';
import { pageColour } from './pageColour';
import { inScene } from './PlaceCamera';

/** A click that slid further was a turn. */
const MOST_SLIP_PX = 4;

interface FaceProps {
  facet: Pick<Facet, 'kind' | 'corners'>;
  color?: Color;
  opacity?: number;
  onPick?: () => void;
}

/** A flat face, seen through from either side, with its edges. */
export function Face({ facet, color, opacity, onPick }: FaceProps) {
  const { surface, edges } = useMemo(() => {
    const points = facet.corners.map(inScene);
    // laid flat along the two axes in which it reaches furthest
    const reach = (axis: 'x' | 'y' | 'z') => {
      const on = points.map((p) => p[axis]);
      return Math.max(...on) - Math.min(...on);
    };
    const [u, v] = (['x', 'y', 'z'] as const).toSorted((a, b) => reach(b) - reach(a)) as [
      'x' | 'y' | 'z',
      'x' | 'y' | 'z',
    ];
    const triangles = ShapeUtils.triangulateShape(
      points.map((p) => new Vector2(p[u], p[v])),
      [],
    );
    const made = new BufferGeometry();
    made.setAttribute(
      'position',
      new Float32BufferAttribute(
        points.flatMap((p) => p.toArray()),
        3,
      ),
    );
    made.setIndex(triangles.flat());
    made.computeVertexNormals();
    const outline = new BufferGeometry().setFromPoints([...points, points[0]!]);
    return { surface: made, edges: outline };
  }, [facet.corners]);
  useEffect(
    () => () => {
      surface.dispose();
      edges.dispose();
    },
    [surface, edges],
  );
  return (
    <>
      <mesh
        geometry={surface}
        onClick={
          onPick &&
          ((event: ThreeEvent<MouseEvent>) => {
            // the hand that turned the place has chosen nothing
            if (event.delta > MOST_SLIP_PX) return;
            event.stopPropagation();
            onPick();
          })
        }
      >
        <meshBasicMaterial
          color={color ?? pageColour('--stone')}
          transparent
          opacity={opacity ?? (facet.kind === 'floor' ? 0.55 : 0.14)}
          side={DoubleSide}
          depthWrite={false}
        />
      </mesh>
      <lineSegments>
        <edgesGeometry args={[surface, 1]} />
        <lineBasicMaterial color={pageColour('--stone-ink')} />
      </lineSegments>
    </>
  );
}

export function FixtureBox({ fixture: f, color }: { fixture: Fixture; color: Color }) {
  const size = [Math.max(0.02, f.width), Math.max(0.02, f.top - f.bottom), Math.max(0.02, f.depth)] as const;
  const at = inScene({ x: f.x + f.width / 2, y: f.y + f.depth / 2, z: (f.bottom + f.top) / 2 });
  return (
    <mesh position={at}>
      <boxGeometry args={[...size]} />
      <meshLambertMaterial color={color} transparent opacity={0.75} />
    </mesh>
  );
}

/** Many small balls at once. */
export function Dots({ points, radius, color }: { points: readonly Point[]; radius: number; color: Color }) {
  const mesh = useRef<InstancedMesh>(null);
  const { invalidate } = useThree();
  useLayoutEffect(() => {
    const matrix = new Matrix4();
    points.forEach((p, i) => mesh.current!.setMatrixAt(i, matrix.setPosition(inScene(p))));
    mesh.current!.instanceMatrix.needsUpdate = true;
    mesh.current!.computeBoundingSphere();
    invalidate();
  }, [points, invalidate]);
  return (
    <instancedMesh key={points.length} ref={mesh} args={[undefined, undefined, points.length]}>
      <sphereGeometry args={[radius, 10, 8]} />
      <meshLambertMaterial color={color} />
    </instancedMesh>
  );
}

/** Every box of a loudspeaker, its front a little lighter, where it points. */
export function Cabinets({ loudspeaker, color }: { loudspeaker: Loudspeaker; color: Color }) {
  const isSub = loudspeaker.role === 'subwoofer';
  const [deep, high, wide] = isSub ? [0.55, 0.55, 0.6] : [0.28, 0.42, 0.28];
  return (
    <>
      {boxesOf(loudspeaker).map(({ position, aim }, i) => {
        const turn = new Quaternion().setFromUnitVectors(new Vector3(1, 0, 0), inScene(aim).normalize());
        return (
          <group key={i} position={inScene(position)} quaternion={turn}>
            <mesh>
              <boxGeometry args={[deep, high, wide]} />
              <meshLambertMaterial color={color} />
            </mesh>
            <mesh position={[deep / 2 + 0.01, 0, 0]}>
              <boxGeometry args={[0.02, 0.8 * high, 0.8 * wide]} />
              <meshLambertMaterial color={pageColour('--stone')} />
            </mesh>
          </group>
        );
      })}
    </>
  );
}
