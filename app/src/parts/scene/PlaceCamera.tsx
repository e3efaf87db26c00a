import { useThree } from '@react-three/fiber';
import { EAR_M, extentOf, floorAt } from '@pebble-hall/core/place';
import type { Place } from '@pebble-hall/core/project';
import type { Point } from '@pebble-hall/core/geometry';
import { useEffect, useRef } from 'react';
import { Vector3 } from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { useAlike } from '../../services/useDerived';

export interface CameraProps {
  place: Place;
  /** from outside, all of it at once; or from the home spot, as one sits there, and walking from it */
  stand: 'outside' | 'home';
  /** changes when all of it shall be seen again */
  fitted: number;
  /** what is seen, where that is not the place as drawn */
  reach?: { least: Point; most: Point } | undefined;
}

/** Ours lies on x and y with z up; that of the scene has y up, and is turned, not mirrored. */
export const inScene = ({ x, y, z }: Point): Vector3 => new Vector3(x, z, -y);

/** From where all of a place is seen at first. */
const FROM = new Vector3(0.34, 0.5, 0.72).normalize();

/** Width over height of a picture in which all of a place is seen from `FROM`. */
const LEAST_ASPECT = 1.25;

/** Ahead, to the right and up, in steps, by key. */
const STEPS: Record<string, [number, number, number]> = {
  ArrowUp: [1, 0, 0],
  ArrowDown: [-1, 0, 0],
  ArrowRight: [0, 1, 0],
  ArrowLeft: [0, -1, 0],
  PageUp: [0, 0, 1],
  PageDown: [0, 0, -1],
};
const STEP_M = 0.25;

/** Where the camera is, turned by hand from there. */
export function Camera({ place, stand, fitted, reach }: CameraProps) {
  const { camera, gl, invalidate, size } = useThree();
  // a picture that is narrow is seen from further away
  const away = Math.max(1, LEAST_ASPECT / (size.width / Math.max(1, size.height)));
  const controls = useRef<OrbitControls | null>(null);
  useEffect(() => {
    // keys are for whoever walks in it
    gl.domElement.tabIndex = 0;
    const made = new OrbitControls(camera, gl.domElement);
    made.addEventListener('change', () => invalidate());
    controls.current = made;
    return () => made.dispose();
  }, [camera, gl, invalidate]);
  const { position } = place.spots[0]!;
  // the same view is not taken again because something else in the place has moved
  const view = useAlike({
    ...(reach ?? extentOf(place.shape)),
    home: { ...position, z: Math.max(position.z, floorAt(place.shape, position) + EAR_M.seated) },
    stand,
    fitted,
  });
  useEffect(() => {
    const target = controls.current?.target;
    if (view.stand === 'outside') {
      const [low, high] = [inScene(view.least), inScene(view.most)];
      const middle = low.clone().add(high).multiplyScalar(0.5);
      camera.position.copy(middle).add(FROM.clone().multiplyScalar(1.08 * away * low.distanceTo(high)));
      target?.copy(middle);
    } else {
      camera.position.copy(inScene(view.home));
      // one looks ahead to where x is 0; the point turned about lies just before the eyes
      target?.copy(camera.position).add(new Vector3(-0.4, 0, 0));
    }
    controls.current?.update();
    invalidate();
  }, [view, away, camera, invalidate]);
  useEffect(() => {
    if (stand !== 'home') return;
    const page = gl.domElement;
    const walk = (event: KeyboardEvent) => {
      const way = STEPS[event.key];
      const target = controls.current?.target;
      if (!way || !target) return;
      event.preventDefault();
      // what is chosen stays where it is: the keys are for the feet here
      event.stopPropagation();
      const ahead = target.clone().sub(camera.position).setY(0).normalize();
      const right = new Vector3(-ahead.z, 0, ahead.x);
      const by = ahead.multiplyScalar(way[0]).add(right.multiplyScalar(way[1])).setY(way[2]);
      by.multiplyScalar(event.shiftKey ? 4 * STEP_M : STEP_M);
      camera.position.add(by);
      target.add(by);
      controls.current?.update();
      invalidate();
    };
    page.addEventListener('keydown', walk);
    return () => page.removeEventListener('keydown', walk);
  }, [stand, camera, gl, invalidate]);
  return null;
}
