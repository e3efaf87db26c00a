import { Primitive, WebIO, type JSONDocument, type Node, type mat4 } from '@gltf-transform/core';
import { FormatError, textOfBytes } from '../formats/index.js';
import { needFewer, type DrawnLine, type DrawnSurface, type Model } from './model.js';

const { TRIANGLES, TRIANGLE_STRIP, TRIANGLE_FAN, LINES, LINE_STRIP, LINE_LOOP } = Primitive.Mode;
const MAGIC = 0x46546c67;

/**
 * Reads glTF 2.0, binary (GLB) or text with what it needs inside: every node's mesh where the node puts it. In metres, y up, as
 * the format lays down.
 * @throws FormatError when it is none, needs files beside it or an extension, or has more faces than are taken
 */
export async function readGltf(bytes: Uint8Array): Promise<Model> {
  const isBinary =
    bytes.length > 12 && new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true) === MAGIC;
  const io = new WebIO();
  let json: JSONDocument;
  try {
    json = isBinary
      ? await io.binaryToJSON(bytes)
      : { json: JSON.parse(textOfBytes(bytes)) as JSONDocument['json'], resources: {} };
  } catch {
    throw new FormatError('The file is not glTF, or is cut off. Save it again, as GLB.');
  }
  refuseWhatIsMissing(json.json);
  needFewer(facesIn(json.json));
  let document;
  try {
    document = await io.readJSON(json);
  } catch {
    throw new FormatError(
      'The glTF file does not fit together: parts of it are missing or damaged. Save it again, as GLB.',
    );
  }
  const found = { surfaces: [] as DrawnSurface[], lines: [] as DrawnLine[], points: 0 };
  const root = document.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  const visit = (node: Node) => {
    const mesh = node.getMesh();
    const name = node.getName() || mesh?.getName() || '';
    for (const primitive of mesh?.listPrimitives() ?? []) take(found, primitive, name, node.getWorldMatrix());
    node.listChildren().forEach(visit);
  };
  (scene ? scene.listChildren() : root.listNodes().filter((n) => !n.getParentNode())).forEach(visit);
  const left = found.points > 0 ? [{ what: 'clouds of points', count: found.points }] : [];
  return { format: 'glTF', surfaces: found.surfaces, lines: found.lines, unitM: 1, up: 'y', left };
}

function refuseWhatIsMissing(json: JSONDocument['json']): void {
  if (typeof json !== 'object' || json === null || !String(json.asset?.version ?? '').startsWith('2'))
    throw new FormatError('The file is not glTF 2.0. Save it as GLB of version 2.');
  const beside = (json.buffers ?? []).map((b) => b.uri).find((uri) => uri && !uri.startsWith('data:'));
  if (beside)
    throw new FormatError(
      `The glTF file keeps its corners in another file, “${beside}”. Save it as GLB: that is one file.`,
    );
  const [needed] = json.extensionsRequired ?? [];
  if (needed)
    throw new FormatError(
      `The glTF file needs “${needed}”, which is not read here. Save it without compression.`,
    );
  // pictures of its surfaces are not drawn, and may lie anywhere
  delete json.images;
  delete json.textures;
  for (const material of json.materials ?? []) {
    delete material.pbrMetallicRoughness;
    delete material.normalTexture;
    delete material.occlusionTexture;
    delete material.emissiveTexture;
    delete material.extensions;
  }
}

/** How many faces its accessors announce. */
const facesIn = ({ meshes = [], accessors = [] }: JSONDocument['json']): number =>
  meshes
    .flatMap((m) => m.primitives)
    .reduce((sum, p) => {
      const accessor = accessors[p.indices ?? p.attributes['POSITION'] ?? -1];
      return (
        sum + ((p.mode ?? TRIANGLES) === TRIANGLES ? (accessor?.count ?? 0) / 3 : (accessor?.count ?? 0))
      );
    }, 0);

function take(
  found: { surfaces: DrawnSurface[]; lines: DrawnLine[]; points: number },
  primitive: Primitive,
  meshName: string,
  matrix: mat4,
): void {
  const position = primitive.getAttribute('POSITION');
  if (!position) return;
  const corner = cornerAt(position, matrix);
  const indices = primitive.getIndices();
  const order = indices
    ? Array.from(indices.getArray() ?? [], Number)
    : Array.from({ length: position.getCount() }, (_, i) => i);
  const name = meshName || primitive.getMaterial()?.getName() || 'Surface';
  const numbers = (picked: number[]) => Float64Array.from(picked.flatMap((i) => corner(order[i]!)));
  const many = order.length;
  const mode = primitive.getMode();
  const steps = (count: number, picks: (i: number) => number[]) =>
    Array.from({ length: Math.max(0, count) }, (_, i) => picks(i)).flat();
  if (mode === TRIANGLES)
    found.surfaces.push({
      name,
      triangles: numbers(steps(Math.floor(many / 3), (i) => [3 * i, 3 * i + 1, 3 * i + 2])),
    });
  else if (mode === TRIANGLE_STRIP)
    // every other one runs the other way round
    found.surfaces.push({
      name,
      triangles: numbers(steps(many - 2, (i) => (i % 2 === 0 ? [i, i + 1, i + 2] : [i + 1, i, i + 2]))),
    });
  else if (mode === TRIANGLE_FAN)
    found.surfaces.push({ name, triangles: numbers(steps(many - 2, (i) => [0, i + 1, i + 2])) });
  else if (mode === LINES)
    for (let i = 0; i + 1 < many; i += 2)
      found.lines.push({ name, points: numbers([i, i + 1]), isClosed: false });
  else if (mode === LINE_STRIP || mode === LINE_LOOP)
    found.lines.push({ name, points: numbers(steps(many, (i) => [i])), isClosed: mode === LINE_LOOP });
  else found.points++;
}

/** A corner by its number, where the node puts it; NaN where there is none. */
function cornerAt(
  position: NonNullable<ReturnType<Primitive['getAttribute']>>,
  m: mat4,
): (i: number) => [number, number, number] {
  const count = position.getCount();
  const p = [0, 0, 0];
  return (i) => {
    if (i >= count) return [NaN, NaN, NaN];
    const [x, y, z] = position.getElement(i, p) as [number, number, number];
    return [
      m[0] * x + m[4] * y + m[8] * z + m[12],
      m[1] * x + m[5] * y + m[9] * z + m[13],
      m[2] * x + m[6] * y + m[10] * z + m[14],
    ];
  };
}
