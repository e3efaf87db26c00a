import { axesOf, distanceBetween, pointAlong, type Axes, type Point } from '../geometry/index.js';

/** One box of a group by itself: where it is from the centre (ahead, left, up), and what it gets. */
export interface FreeBox {
  ahead: number;
  left: number;
  up: number;
  yawDeg: number;
  pitchDeg: number;
  delayMs: number;
  inverted: boolean;
}

/**
 * Several boxes on one output, which move and count as one:
 * a line, hanging, each box turned down against the one above by a splay; an arc on the floor or in the air, its boxes pointing outward;
 * a gradient pair, the rear box later and inverted; end-fire, each box ahead of the last one and later by the way between;
 * a stack; or boxes that were placed one by one.
 */
export type Group =
  | { kind: 'line'; spacingM: number; splayDeg: number[] }
  | { kind: 'row'; count: number; spacingM: number }
  | { kind: 'arc'; count: number; radiusM: number; spanDeg: number }
  | { kind: 'gradient'; spacingM: number; rearDelayMs: number }
  | { kind: 'end-fire'; count: number; spacingM: number; stepMs: number }
  | { kind: 'stack'; count: number; spacingM: number }
  | { kind: 'free'; boxes: FreeBox[] };

/** A box where it is and as it points, and what it gets on top of what its output plays. */
export interface Box {
  position: Point;
  aim: Point;
  /** how it is turned about all three; `aim` is `axes.ahead` */
  axes: Axes;
  delayMs: number;
  inverted: boolean;
}

export interface Grouped {
  /** the centre of a group */
  position: Point;
  /** azimuth, degrees counter-clockwise from x; up where positive; its left side down where positive */
  aimDeg: number;
  pitchDeg: number;
  rollDeg: number;
  group: Group | null;
}

const PLAIN: FreeBox = { ahead: 0, left: 0, up: 0, yawDeg: 0, pitchDeg: 0, delayMs: 0, inverted: false };

/** The boxes of a group as placed from its centre; one box in the centre where there is no group. */
export function freeBoxesOf(group: Group | null): FreeBox[] {
  if (!group) return [PLAIN];
  const middle = (count: number, i: number) => i - (count - 1) / 2;
  const of = (count: number, box: (i: number) => Partial<FreeBox>): FreeBox[] =>
    Array.from({ length: count }, (_, i) => ({ ...PLAIN, ...box(i) }));
  switch (group.kind) {
    case 'free':
      return group.boxes;
    case 'line':
      return lineBoxes(group.spacingM, group.splayDeg);
    case 'row':
      return of(group.count, (i) => ({ left: -middle(group.count, i) * group.spacingM }));
    case 'stack':
      return of(group.count, (i) => ({ up: middle(group.count, i) * group.spacingM }));
    case 'arc':
      return of(group.count, (i) => {
        const deg = group.count > 1 ? -(middle(group.count, i) / (group.count - 1)) * group.spanDeg : 0;
        const angle = (deg * Math.PI) / 180;
        return {
          ahead: group.radiusM * (Math.cos(angle) - 1),
          left: group.radiusM * Math.sin(angle),
          yawDeg: deg,
        };
      });
    case 'gradient':
      return of(2, (i) => ({
        ahead: (0.5 - i) * group.spacingM,
        ...(i === 1 ? { delayMs: group.rearDelayMs, inverted: true } : {}),
      }));
    case 'end-fire':
      // the foremost first; the rearmost plays first
      return of(group.count, (i) => ({
        ahead: -middle(group.count, i) * group.spacingM,
        delayMs: (group.count - 1 - i) * group.stepMs,
      }));
  }
}

/** From the top down: each box hangs below the one above, turned further down by the splay between the two. */
function lineBoxes(spacingM: number, splayDeg: number[]): FreeBox[] {
  const boxes: FreeBox[] = [PLAIN];
  let pitch = 0;
  let [ahead, up] = [0, 0];
  for (const splay of splayDeg) {
    // half of the way follows the box above, half the one below
    for (const deg of [pitch, pitch - splay]) {
      const [s, c] = [Math.sin((deg * Math.PI) / 180), Math.cos((deg * Math.PI) / 180)];
      ahead += (spacingM / 2) * s;
      up -= (spacingM / 2) * c;
    }
    pitch -= splay;
    boxes.push({ ...PLAIN, ahead, up, pitchDeg: pitch });
  }
  // the centre of the group is the middle of its boxes, and it points as they do on the whole
  const mean = (key: 'ahead' | 'up' | 'pitchDeg') => boxes.reduce((sum, b) => sum + b[key], 0) / boxes.length;
  const [a, u, p] = [mean('ahead'), mean('up'), mean('pitchDeg')];
  const [s, c] = [Math.sin((-p * Math.PI) / 180), Math.cos((-p * Math.PI) / 180)];
  return boxes.map((b) => ({
    ...b,
    ahead: c * (b.ahead - a) - s * (b.up - u),
    up: s * (b.ahead - a) + c * (b.up - u),
    pitchDeg: b.pitchDeg - p,
  }));
}

/** Every box of a loudspeaker or group in the place. */
export function boxesOf({ position, aimDeg, pitchDeg, rollDeg, group }: Grouped): Box[] {
  const axes = axesOf(aimDeg, pitchDeg, rollDeg);
  return freeBoxesOf(group).map((box) => {
    const own = turned(axes, box);
    return {
      position: pointAlong(position, axes, box),
      aim: own.ahead,
      axes: own,
      delayMs: box.delayMs,
      inverted: box.inverted,
    };
  });
}

/** How a box is turned that is turned and pitched within its group. */
function turned(axes: Axes, { yawDeg, pitchDeg }: FreeBox): Axes {
  const within = axesOf(yawDeg, pitchDeg);
  const out = (v: Point): Point => pointAlong({ x: 0, y: 0, z: 0 }, axes, { ahead: v.x, left: v.y, up: v.z });
  return { ahead: out(within.ahead), left: out(within.left), up: out(within.up) };
}

/** Metres from the nearest box to a point, its delay counted as a way: from where sound arrives first. */
export const nearestM = (grouped: Grouped, to: Point, speedOfSound: number): number =>
  Math.min(
    ...boxesOf(grouped).map((b) => distanceBetween(b.position, to) + (b.delayMs / 1000) * speedOfSound),
  );
