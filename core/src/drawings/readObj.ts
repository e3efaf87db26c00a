import { Mesh, type BufferGeometry, type Material } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { textOfBytes } from '../formats/index.js';
import { needFewer, type DrawnLine, type DrawnSurface, type Model } from './model.js';

/** Statements of the format that say how something curved runs; there are no faces in them. */
const CURVED = /^(curv2?|surf|cstype)\b/;

/**
 * Reads Wavefront OBJ text: objects, groups and materials by their names, faces of any number of corners, lines.
 * The format tells neither unit nor the axis that points up.
 * @throws FormatError with more faces than are taken
 */
export function readObj(bytes: Uint8Array): Model {
  const text = textOfBytes(bytes);
  const counts = { faces: 0, points: 0, curved: 0 };
  for (const line of linesOf(text)) {
    if (line.startsWith('f ')) counts.faces++;
    else if (line.startsWith('p ')) counts.points++;
    else if (CURVED.test(line)) counts.curved++;
  }
  // counted ahead: reading millions takes gigabytes
  needFewer(counts.faces);
  const surfaces: DrawnSurface[] = [];
  const lines: DrawnLine[] = [];
  new OBJLoader().parse(text).traverse((thing) => {
    const { geometry, material } = thing as unknown as {
      geometry?: BufferGeometry;
      material?: Material | Material[];
    };
    const position = geometry?.getAttribute('position');
    if (!geometry || !position) return;
    const numbers = Float64Array.from(position.array);
    if (thing instanceof Mesh) surfaces.push(...byMaterial(thing.name, numbers, geometry, material));
    else if ((thing as { isLineSegments?: boolean }).isLineSegments)
      for (let i = 0; i + 5 < numbers.length; i += 6)
        lines.push({ name: thing.name || 'Lines', points: numbers.slice(i, i + 6), isClosed: false });
  });
  const left = [
    { what: 'points by themselves', count: counts.points },
    { what: 'curved lines or surfaces', count: counts.curved },
  ].filter((l) => l.count > 0);
  return { format: 'OBJ', surfaces, lines, unitM: null, up: null, left };
}

/** One surface for each material of an object. */
function byMaterial(
  name: string,
  numbers: Float64Array,
  { groups }: BufferGeometry,
  material: Material | Material[] | undefined,
): DrawnSurface[] {
  const materials = Array.isArray(material) ? material : material ? [material] : [];
  if (materials.length < 2 || groups.length === 0)
    return [{ name: name || materials[0]?.name || 'Surface', triangles: numbers }];
  return groups.map(({ start, count, materialIndex = 0 }) => ({
    name: [name, materials[materialIndex]?.name].filter(Boolean).join(', ') || 'Surface',
    triangles: numbers.slice(3 * start, 3 * (start + count)),
  }));
}

/** Lines of a text one by one, without a list of all. */
function* linesOf(text: string): Generator<string> {
  for (let from = 0; from < text.length;) {
    const end = text.indexOf('\n', from);
    const to = end < 0 ? text.length : end;
    // what tells the kind of a statement stands at its beginning
    yield text.slice(from, Math.min(to, from + 8)).trimStart();
    from = to + 1;
  }
}
