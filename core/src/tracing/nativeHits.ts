import { nativeInstance } from '../native/index.js';
import { FIRST_HIT } from './firstHitBytes.js';
import { EDGE, ON_M } from './meeting.js';
import type { Scene } from './scene.js';
import { wideTreeOf, type WideChild } from './wideTree.js';

interface Exports {
  begin: (nodesAt: number, trianglesAt: number, onM: number, edge: number) => void;
  firstHit: (
    ...ray: [
      ox: number,
      oy: number,
      oz: number,
      dx: number,
      dy: number,
      dz: number,
      most: number,
      any: number,
    ]
  ) => number;
  distanceOfHit: () => number;
}

/** First hits of one scene by WebAssembly. */
export interface NativeHits extends Pick<Exports, 'firstHit' | 'distanceOfHit'> {
  /** rays that begin further from zero than this in any coordinate, metres, are not for it: single precision would tell in them */
  reach: number;
}

const STACK_BYTES = 4096;
const NODE_BYTES = 128;
/** Each level leaves at most three to be looked at, of 8 bytes, in what the stack has beside its scratch. */
const MOST_DEPTH = 160;
/** A leaf tells its number in four bits. */
const MOST_IN_LEAF = 15;
/**
 * Boxes reach so much further than they are, as a share of the largest coordinate, for all that single precision rounds: an origin
 * up to twice as far out, a difference of up to three times, and the product with the inverse, 2^-24 each.
 */
const MARGIN = 1e-6;
const REACH = 2;

const known = new WeakMap<Scene, NativeHits | null>();

/** First hits of a scene by WebAssembly, made once; null where that is not to be had. */
export function nativeHitsOf(scene: Scene): NativeHits | null {
  const before = known.get(scene);
  if (before !== undefined) return before;
  const made = make(scene);
  known.set(scene, made);
  return made;
}

function make(scene: Scene): NativeHits | null {
  const tree = wideTreeOf(scene.tree);
  if (tree.depth > MOST_DEPTH) return null;
  if (scene.tree.counts.some((count) => count > MOST_IN_LEAF)) return null;
  const size = Math.max(
    ...[scene.least, scene.most].flatMap(({ x, y, z }) => [Math.abs(x), Math.abs(y), Math.abs(z)]),
  );
  const trianglesAt = STACK_BYTES + NODE_BYTES * tree.nodes.length;
  const bytes = trianglesAt + scene.triangles.byteLength;
  const native = nativeInstance<Exports>(FIRST_HIT, bytes);
  if (!native) return null;
  tree.nodes.forEach((node, i) =>
    layNode(native.buffer, STACK_BYTES + NODE_BYTES * i, node, scene.tree.counts, MARGIN * size),
  );
  new Float64Array(native.buffer, trianglesAt, scene.triangles.length).set(scene.triangles);
  const { begin, firstHit, distanceOfHit } = native.exports;
  begin(STACK_BYTES, trianglesAt, ON_M, EDGE);
  return { reach: REACH * size, firstHit, distanceOfHit };
}

/** One node as core/assembly/firstHit.ts reads it. */
function layNode(
  buffer: ArrayBuffer,
  at: number,
  node: readonly WideChild[],
  counts: Int32Array,
  margin: number,
): void {
  const boxes = new Float32Array(buffer, at, 24);
  const children = new Int32Array(buffer, at + 96, 4);
  for (let lane = 0; lane < 4; lane++) {
    const slot = node[lane];
    for (let k = 0; k < 6; k++) {
      const outwards = k < 3 ? -1 : 1;
      // where there is no child, a box that nothing meets
      boxes[4 * k + lane] = slot ? slot.box[k]! + outwards * margin : -outwards * Infinity;
    }
    if (slot)
      children[lane] = slot.child >= 0 ? slot.child : ~(((-1 - slot.child) << 4) | counts[-1 - slot.child]!);
  }
}
