import { useComputedColorScheme } from '@mantine/core';
import { Canvas, useThree } from '@react-three/fiber';
import { BALLOON_STEP_DEG } from '@pebble-hall/core/coverage';
import { useEffect, useMemo } from 'react';
import { BufferGeometry, DoubleSide, Float32BufferAttribute, Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { colourAt } from '../map/mapColours';
import { pageColour } from '../../../parts/scene/pageColour';
import { POLAR_DEEP_DB } from '../../../parts/pattern/PolarPlot';

interface BalloonSceneProps {
  label: string;
  /** dB against the axis, `[angle * abouts + about]` */
  levels: Float32Array;
}

const ROWS = 180 / BALLOON_STEP_DEG + 1;
const ABOUTS = 360 / BALLOON_STEP_DEG;

/** All directions at once: the farther from the middle, the louder, as in the polars; the axis points to the lower left. */
export default function BalloonScene({ label, levels }: BalloonSceneProps) {
  return (
    <Canvas
      gl={{ preserveDrawingBuffer: true }}
      frameloop="demand"
      flat
      camera={{ fov: 38, near: 0.1, far: 50, position: [1.5, 1.15, 2.3] }}
      role="img"
      aria-label={label}
    >
      <ambientLight intensity={1.7} />
      <directionalLight position={[2, 4, 3]} intensity={1.3} />
      <Turned />
      <Balloon levels={levels} />
      <Axis />
    </Canvas>
  );
}

/** Turned with the hand. */
function Turned() {
  const { camera, gl, invalidate } = useThree();
  useEffect(() => {
    gl.domElement.tabIndex = 0;
    const controls = new OrbitControls(camera, gl.domElement);
    controls.addEventListener('change', () => invalidate());
    controls.listenToKeyEvents(gl.domElement);
    controls.update();
    return () => controls.dispose();
  }, [camera, gl, invalidate]);
  return null;
}

/** Ours has its axis along x, its left along y, z up; that of the scene has y up. */
const inScene = (ahead: number, left: number, up: number) => new Vector3(ahead, up, -left);

function Balloon({ levels }: Pick<BalloonSceneProps, 'levels'>) {
  const scheme = useComputedColorScheme('light');
  const geometry = useMemo(() => {
    const points: number[] = [];
    const colours: number[] = [];
    for (let i = 0; i < ROWS; i++)
      // one more than all about, so that it closes
      for (let j = 0; j <= ABOUTS; j++) {
        const [angle, about] = [i, j].map((n) => (n * BALLOON_STEP_DEG * Math.PI) / 180) as [number, number];
        const share = Math.max(0.02, Math.min(1.08, 1 + levels[i * ABOUTS + (j % ABOUTS)]! / POLAR_DEEP_DB));
        const s = Math.sin(angle);
        const at = inScene(Math.cos(angle), s * Math.cos(about), s * Math.sin(about)).multiplyScalar(share);
        points.push(at.x, at.y, at.z);
        // the quietest of the scale is the colour of the page: the balloon begins above it
        colours.push(...colourAt(0.2 + 0.8 * share, scheme, false).map((v) => (v / 255) ** 2.2));
      }
    const corners: number[] = [];
    for (let i = 0; i + 1 < ROWS; i++)
      for (let j = 0; j < ABOUTS; j++) {
        const [a, b] = [i * (ABOUTS + 1) + j, (i + 1) * (ABOUTS + 1) + j];
        corners.push(a, a + 1, b, b, a + 1, b + 1);
      }
    const made = new BufferGeometry();
    made.setAttribute('position', new Float32BufferAttribute(points, 3));
    made.setAttribute('color', new Float32BufferAttribute(colours, 3));
    made.setIndex(corners);
    made.computeVertexNormals();
    return made;
  }, [levels, scheme]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <mesh geometry={geometry}>
      <meshLambertMaterial vertexColors side={DoubleSide} />
    </mesh>
  );
}

/** Where it points. */
function Axis() {
  const geometry = useMemo(
    () => new BufferGeometry().setFromPoints([inScene(0, 0, 0), inScene(1.35, 0, 0)]),
    [],
  );
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <lineSegments geometry={geometry}>
      <lineBasicMaterial color={pageColour('--buoy')} />
    </lineSegments>
  );
}
