import { areaOf, boundsOf, crossingSides, lengthOf, type Corner } from '../geometry/index.js';
import type { Ceiling } from '../place/index.js';
import { chainsOf, edgesOf, faceVector, meshOf, WELD_M, type Mesh } from './mesh.js';
import type { Model } from './model.js';

/** A room as a model shows it: its outline, and how high it is where there are faces. */
export interface FoundOutline {
  corners: Corner[];
  /** what it was taken from */
  from: 'floor' | 'closed line';
  /** how high its walls are, metres, and how the ceiling lies on them; null where the model is flat */
  above: { heightM: number; ceiling: Ceiling; isSimpler: boolean } | null;
}

/** No outline has more corners than a place may. */
const MOST_CORNERS = 200;
/** A face counts as floor or ceiling where its normal is this near to the vertical. */
const LEVEL = 0.8;
/** Lower is no room, metres. */
const LEAST_HIGH_M = 0.5;
/** Smaller is no room, square metres. */
const LEAST_M2 = 1;

/**
 * The outline of a room in a model: of faces the border of the largest floor, of lines the largest loop that is closed.
 * @param placed in metres, z up
 * @returns null where no outline is closed
 */
export function outlineOf(placed: Pick<Model, 'surfaces' | 'lines'>): FoundOutline | null {
  const floor = floorLoop(placed);
  const best = floor ?? lineLoop(placed);
  if (!best) return null;
  const corners = simplified(best.map(({ x, y }) => ({ x, y })));
  if (corners.length < 3 || corners.length > MOST_CORNERS || crossingSides(corners).length > 0) return null;
  return { corners, from: floor ? 'floor' : 'closed line', above: heightsOver(corners, placed) };
}

/** Points this near to each other seen from above stand over each other, and heights this near are one, metres. */
const NEAR_M = 0.03;

/**
 * How high the walls are over the corners of an outline, and how the ceiling lies on them: level, rising to one side, or to a
 * ridge along an axis. `isSimpler` where it is none of these, and is taken as level at its highest point.
 */
function heightsOver(
  corners: readonly Corner[],
  { surfaces }: Pick<Model, 'surfaces'>,
): FoundOutline['above'] {
  const points = meshOf(surfaces).corners;
  if (points.length === 0) return null;
  const [low, high] = [Math.min(...points.map((p) => p.z)), Math.max(...points.map((p) => p.z))];
  if (high - low < LEAST_HIGH_M) return null;
  const near = (a: number, b: number) => Math.abs(a - b) < NEAR_M;
  const tops = corners.map((c) =>
    Math.max(low, ...points.filter((p) => near(p.x, c.x) && near(p.y, c.y)).map((p) => p.z)),
  );
  const level = { heightM: high - low, ceiling: { kind: 'flat' } as Ceiling };
  if (tops.every((z) => near(z, high))) return { ...level, isSimpler: false };
  const least = Math.min(...tops);
  const highM = high - low;
  const bounds = boundsOf(corners);
  if (least - low > LEAST_HIGH_M)
    for (const along of ['x', 'y'] as const) {
      const [from, to] = [bounds.least[along], bounds.most[along]];
      const rising = (at: number) => least + ((high - least) * (at - from)) / (to - from);
      if (corners.every((c, i) => near(tops[i]!, rising(c[along]))))
        return { heightM: least - low, ceiling: { kind: 'pitched', along, highM }, isSimpler: false };
      const across = along === 'x' ? 'y' : 'x';
      const middle = (bounds.least[across] + bounds.most[across]) / 2;
      const isRidge = points.filter((p) => near(p.z, high)).every((p) => near(p[across], middle));
      if (isRidge && tops.every((z) => near(z, least)))
        return { heightM: least - low, ceiling: { kind: 'ridged', along, highM }, isSimpler: false };
    }
  return { ...level, isSimpler: true };
}

/** The border of the lowest of the large level parts; null where there is none, or its border is not closed. */
function floorLoop({ surfaces }: Pick<Model, 'surfaces'>): Corner[] | null {
  const mesh = meshOf(surfaces);
  const level: number[] = [];
  const areas = new Map<number, number>();
  for (let face = 0; face < mesh.faces.length / 3; face++) {
    const v = faceVector(mesh, face);
    if (Math.abs(v.z) < LEVEL * lengthOf(v)) continue;
    level.push(face);
    areas.set(face, Math.abs(v.z) / 2);
  }
  if (level.length === 0) return null;
  const parts = connected(mesh, level).map((faces) => ({
    faces,
    area: faces.reduce((sum, f) => sum + areas.get(f)!, 0),
    height: faces.reduce((sum, f) => sum + areas.get(f)! * heightOf(mesh, f), 0),
  }));
  const largest = Math.max(...parts.map((p) => p.area));
  const lowest = parts
    .filter((p) => p.area >= 0.5 * largest)
    .sort((a, b) => a.height / a.area - b.height / b.area)[0]!;
  const border = edgesOf(mesh, lowest.faces).filter((e) => e.faces.length === 1);
  return largestLoop(chainsOf(border), mesh.corners);
}

const heightOf = ({ corners, faces }: Mesh, face: number) =>
  (corners[faces[3 * face]!]!.z + corners[faces[3 * face + 1]!]!.z + corners[faces[3 * face + 2]!]!.z) / 3;

/** Faces that hang together by their edges. */
function connected(mesh: Mesh, faces: number[]): number[][] {
  const lead = new Map(faces.map((f) => [f, f]));
  const find = (f: number): number => {
    let root = f;
    while (lead.get(root) !== root) root = lead.get(root)!;
    for (let now = f; now !== root;) [now] = [lead.get(now)!, lead.set(now, root)];
    return root;
  };
  for (const { faces: shared } of edgesOf(mesh, faces))
    for (const other of shared.slice(1)) lead.set(find(other), find(shared[0]!));
  const parts = new Map<number, number[]>();
  for (const f of faces) {
    const root = find(f);
    const part = parts.get(root);
    if (part) part.push(f);
    else parts.set(root, [f]);
  }
  return [...parts.values()];
}

/** The largest loop that lines close, drawn as one or from end to end. */
function lineLoop({ lines }: Pick<Model, 'lines'>): Corner[] | null {
  const numberOf = new Map<string, number>();
  const corners: Corner[] = [];
  const corner = (x: number, y: number): number => {
    // hands draw less exactly than programs: a centimetre closes
    const key = `${Math.round(x / (10 * WELD_M))} ${Math.round(y / (10 * WELD_M))}`;
    const known = numberOf.get(key);
    if (known !== undefined) return known;
    const number = corners.push({ x, y }) - 1;
    numberOf.set(key, number);
    return number;
  };
  const loops: Corner[][] = [];
  const loose: { from: number; to: number }[] = [];
  const seen = new Set<string>();
  for (const { points, isClosed } of lines) {
    const chain: number[] = [];
    for (let i = 0; i + 2 < points.length; i += 3) chain.push(corner(points[i]!, points[i + 1]!));
    if (isClosed || (chain.length > 3 && chain[0] === chain.at(-1))) {
      loops.push(chain.filter((c, i) => c !== chain[i - 1]).map((c) => corners[c]!));
      continue;
    }
    for (let i = 0; i + 1 < chain.length; i++) {
      const [from, to] = [chain[i]!, chain[i + 1]!];
      const key = `${Math.min(from, to)} ${Math.max(from, to)}`;
      if (from === to || seen.has(key)) continue;
      seen.add(key);
      loose.push({ from, to });
    }
  }
  const drawn = largestLoop(chainsOf(loose), corners);
  if (drawn) loops.push(drawn);
  return largest(loops);
}

const largestLoop = (chains: { corners: number[]; isClosed: boolean }[], corners: readonly Corner[]) =>
  largest(chains.filter((c) => c.isClosed).map((c) => c.corners.map((n) => corners[n]!)));

function largest(loops: Corner[][]): Corner[] | null {
  const sized = loops
    .map((loop) => ({ loop, area: areaOf(loop) }))
    .filter(({ area }) => area >= LEAST_M2)
    .sort((a, b) => b.area - a.area);
  return sized[0]?.loop ?? null;
}

/** An outline without corners that turn nothing; of a round one as many are left out as it takes. */
function simplified(loop: Corner[]): Corner[] {
  const { least, most } = boundsOf(loop);
  const size = Math.hypot(most.x - least.x, most.y - least.y);
  let kept = loop;
  for (let off = 2 * WELD_M; off < size; off *= 2) {
    kept = withoutStraight(loop, off);
    if (kept.length <= MOST_CORNERS) break;
  }
  const mm = (v: number) => Math.round(1000 * v) / 1000;
  return kept.map(({ x, y }) => ({ x: mm(x), y: mm(y) }));
}

/** Drops corners that lie less than `off` beside the line between the corners that are kept (Douglas and Peucker 1973). */
function withoutStraight(loop: Corner[], off: number): Corner[] {
  // begun where it is farthest from its first corner, which on a straight side would be kept for nothing
  const first = farthest(loop, loop[0]!);
  const turned = [...loop.slice(first), ...loop.slice(0, first)];
  const second = farthest(turned, turned[0]!);
  const half = (part: Corner[]): Corner[] => {
    if (part.length < 3) return part;
    const [a, b] = [part[0]!, part.at(-1)!];
    const long = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    let [at, most] = [0, 0];
    part.forEach((p, i) => {
      const d = Math.abs((b.x - a.x) * (a.y - p.y) - (a.x - p.x) * (b.y - a.y)) / long;
      if (d > most) [at, most] = [i, d];
    });
    if (most <= off) return [a, b];
    return [...half(part.slice(0, at + 1)).slice(0, -1), ...half(part.slice(at))];
  };
  const [one, other] = [half(turned.slice(0, second + 1)), half([...turned.slice(second), turned[0]!])];
  return [...one.slice(0, -1), ...other.slice(0, -1)];
}

const farthest = (loop: Corner[], from: Corner): number =>
  loop.reduce(
    (best, p, i) =>
      Math.hypot(p.x - from.x, p.y - from.y) > Math.hypot(loop[best]!.x - from.x, loop[best]!.y - from.y)
        ? i
        : best,
    0,
  );
