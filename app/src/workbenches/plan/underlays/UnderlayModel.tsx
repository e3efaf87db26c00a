import type { Underlay } from '@pebble-hall/core/project';
import { useEffect, useMemo } from 'react';
import { BufferGeometry, DoubleSide, Float32BufferAttribute, type Color } from 'three';
import type { LookOfUnderlay } from '../../../services/underlays';

/** A model in the scene: its faces as through a veil, its edges as lines. The scene has y up, and is turned, not mirrored. */
export function UnderlayModel({
  underlay: { at, turnDeg },
  look,
  color,
}: {
  underlay: Underlay;
  look: Extract<LookOfUnderlay, { kind: 'model' }>;
  color: Color;
}) {
  const faces = useMemo(() => geometryOf(look.triangles), [look.triangles]);
  const edges = useMemo(() => geometryOf(look.ends), [look.ends]);
  useEffect(
    () => () => {
      faces.dispose();
      edges.dispose();
    },
    [faces, edges],
  );
  return (
    <group position={[at.x, at.z, -at.y]} rotation={[0, (turnDeg * Math.PI) / 180, 0]}>
      <mesh geometry={faces}>
        <meshBasicMaterial color={color} side={DoubleSide} transparent opacity={0.12} depthWrite={false} />
      </mesh>
      <lineSegments geometry={edges}>
        <lineBasicMaterial color={color} />
      </lineSegments>
    </group>
  );
}

function geometryOf(numbers: Float32Array): BufferGeometry {
  const turned = new Float32Array(numbers.length);
  for (let i = 0; i + 2 < numbers.length; i += 3) {
    turned[i] = numbers[i]!;
    turned[i + 1] = numbers[i + 2]!;
    turned[i + 2] = -numbers[i + 1]!;
  }
  return new BufferGeometry().setAttribute('position', new Float32BufferAttribute(turned, 3));
}
