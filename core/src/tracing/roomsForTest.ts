import type { Point } from '../geometry/index.js';
import type { TracedFace } from './index.js';

const same = (value: number) => Array.from({ length: 8 }, () => value);

/** Six faces of a box with a corner at the origin. */
export function boxFaces(size: Point, absorption: number | number[], scattering: number): TracedFace[] {
  const p = (i: number, j: number, k: number) => ({ x: i * size.x, y: j * size.y, z: k * size.z });
  const corners = [
    [p(0, 0, 0), p(0, 1, 0), p(0, 1, 1), p(0, 0, 1)],
    [p(1, 0, 0), p(1, 1, 0), p(1, 1, 1), p(1, 0, 1)],
    [p(0, 0, 0), p(1, 0, 0), p(1, 0, 1), p(0, 0, 1)],
    [p(0, 1, 0), p(1, 1, 0), p(1, 1, 1), p(0, 1, 1)],
    [p(0, 0, 0), p(1, 0, 0), p(1, 1, 0), p(0, 1, 0)],
    [p(0, 0, 1), p(1, 0, 1), p(1, 1, 1), p(0, 1, 1)],
  ];
  return corners.map((c, f) => ({
    corners: c,
    absorption: same(typeof absorption === 'number' ? absorption : absorption[f]!),
    scattering: same(scattering),
  }));
}

/** Walls upright over an outline, with a floor and a ceiling. */
export function upright(
  outline: readonly { x: number; y: number }[],
  height: number,
  of: (face: number) => { absorption: number; scattering: number },
): TracedFace[] {
  const at = (z: number) => outline.map((c) => ({ ...c, z }));
  const walls = outline.map((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    return [
      { ...a, z: 0 },
      { ...b, z: 0 },
      { ...b, z: height },
      { ...a, z: height },
    ];
  });
  return [at(0), at(height), ...walls].map((corners, f) => {
    const { absorption, scattering } = of(f);
    return { corners, absorption: same(absorption), scattering: same(scattering) };
  });
}
