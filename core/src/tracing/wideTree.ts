import type { Tree } from './tree.js';

/** A tree whose nodes have up to four children, so that their boxes can be looked at in one go. */
export interface WideTree {
  /** of each node its children, four at most */
  nodes: WideChild[][];
  /** nodes from the root to the deepest one */
  depth: number;
}

export interface WideChild {
  /** least x y z, most x y z */
  box: Float64Array;
  /** a node, or -1 - s for a leaf that begins at s, as in the tree */
  child: number;
}

const WIDTH = 4;

/**
 * Takes two levels of a binary tree as one: a node takes in the children of its largest child until there are four (Wald, Benthin
 * and Boulos 2008).
 */
export function wideTreeOf({ boxes, children }: Pick<Tree, 'boxes' | 'children'>): WideTree {
  const nodes: WideChild[][] = [];
  let depth = 0;
  const childrenOf = (node: number): WideChild[] =>
    [0, 1]
      .map((k) => ({
        box: boxes.slice(12 * node + 6 * k, 12 * node + 6 * k + 6),
        child: children[2 * node + k]!,
      }))
      // the other child of a tree of one leaf is empty
      .filter(({ box }) => box[0]! <= box[3]!);
  const build = (node: number, level: number): number => {
    depth = Math.max(depth, level);
    const slots = childrenOf(node);
    while (slots.length < WIDTH) {
      const largest = slots.reduce(
        (most, { box, child }, i) =>
          child >= 0 && (most < 0 || surface(box) > surface(slots[most]!.box)) ? i : most,
        -1,
      );
      if (largest < 0) break;
      const [open] = slots.splice(largest, 1);
      slots.push(...childrenOf(open!.child));
    }
    const at = nodes.push(slots) - 1;
    nodes[at] = slots.map((slot) =>
      slot.child >= 0 ? { ...slot, child: build(slot.child, level + 1) } : slot,
    );
    return at;
  };
  build(0, 1);
  return { nodes, depth };
}

function surface(box: Float64Array): number {
  const [x, y, z] = [box[3]! - box[0]!, box[4]! - box[1]!, box[5]! - box[2]!];
  return x * y + y * z + z * x;
}
