// Drawings by others as files: a small hall as mesh, its plan as DXF, a sketch as PNG.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { crc32, deflateSync } from 'node:zlib';

const folder = mkdtempSync(join(tmpdir(), 'pebble-hall-drawings-'));
const written = (name: string, data: string | Uint8Array): string => {
  const path = join(folder, name);
  writeFileSync(path, data);
  return path;
};

/** A hall with a gable, 14 by 9 metres, walls 4 and ridge 6.5 m high; corners of its faces, z up. */
const V = [
  ...[0, 1].flatMap((k) => [
    [0, 0, 4 * k],
    [14, 0, 4 * k],
    [14, 9, 4 * k],
    [0, 9, 4 * k],
  ]),
  [0, 4.5, 6.5],
  [14, 4.5, 6.5],
];
const FACES: Record<string, number[][]> = {
  Floor: [[4, 3, 2, 1]],
  Left: [[1, 2, 6, 5]],
  Right: [[3, 4, 8, 7]],
  Front: [[4, 1, 5, 9, 8]],
  Rear: [[2, 3, 7, 10, 6]],
  Roof: [
    [5, 6, 10, 9],
    [7, 8, 9, 10],
  ],
};

export const hallObj = (without: string[] = []): string =>
  written(
    'gable hall.obj',
    [
      ...V.map((v) => `v ${v.join(' ')}`),
      ...Object.entries(FACES)
        .filter(([name]) => !without.includes(name))
        .flatMap(([name, faces]) => [`o ${name}`, ...faces.map((f) => `f ${f.join(' ')}`)]),
      '',
    ].join('\n'),
  );

/** The same hall with a window of 1 by 0.8 metres cut out of its left wall, and its floor there twice. */
export function hallWithWindow(): string {
  const window = [
    [6, 0, 1.5],
    [7, 0, 1.5],
    [7, 0, 2.3],
    [6, 0, 2.3],
  ];
  const around = [
    [1, 2, 12, 11],
    [2, 6, 13, 12],
    [6, 5, 14, 13],
    [5, 1, 11, 14],
  ];
  const faces = { ...FACES, Left: around, Floor: [...FACES['Floor']!, ...FACES['Floor']!] };
  return written(
    'hall with a window.obj',
    [
      ...[...V, ...window].map((v) => `v ${v.join(' ')}`),
      ...Object.entries(faces).flatMap(([name, of]) => [`o ${name}`, ...of.map((f) => `f ${f.join(' ')}`)]),
      '',
    ].join('\n'),
  );
}

/** A vault over a room of 5.6 by 4.8 metres: half of a regular polygon with its axis 1.15 m up, on upright walls. */
export function vaultObj(): string {
  const [sides, up] = [12, 1.15];
  const out = 2.4 / Math.cos(Math.PI / (2 * sides));
  const arch = Array.from({ length: sides + 1 }, (_, k) => {
    const turn = (Math.PI * k) / sides;
    return [2.05 - out * Math.cos(turn), up + out * Math.sin(turn)];
  });
  const around = [[2.05 - out, 0], ...arch, [2.05 + out, 0]];
  const near = (k: number) => k + 1;
  const far = (k: number) => around.length + k + 1;
  const all = [...around.keys()];
  const last = all.length - 1;
  const faces: Record<string, number[][]> = {
    Vault: all.slice(1).map((k) => [near(k - 1), far(k - 1), far(k), near(k)]),
    Floor: [[near(0), near(last), far(last), far(0)]],
    Front: [all.map(near)],
    Rear: [all.map(far)],
  };
  return written(
    'vault.obj',
    [
      ...[0, 5.6].flatMap((x) => around.map(([y, z]) => `v ${x} ${y} ${z}`)),
      ...Object.entries(faces).flatMap(([name, of]) => [`o ${name}`, ...of.map((f) => `f ${f.join(' ')}`)]),
      '',
    ].join('\n'),
  );
}

/** The same hall, y up as glTF has it. */
export function hallGltf(): string {
  const triangles = Object.values(FACES)
    .flat()
    .flatMap((f) => f.slice(2).flatMap((_, i) => [f[0]!, f[i + 1]!, f[i + 2]!]));
  const numbers = triangles.flatMap((n) => {
    const [x, y, z] = V[n - 1]!;
    return [x!, z!, -y!];
  });
  const bytes = Buffer.from(Float32Array.from(numbers).buffer);
  return written(
    'gable hall.gltf',
    JSON.stringify({
      asset: { version: '2.0' },
      scenes: [{ nodes: [0] }],
      nodes: [{ mesh: 0, name: 'Hall' }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      accessors: [{ bufferView: 0, componentType: 5126, count: numbers.length / 3, type: 'VEC3' }],
      bufferViews: [{ buffer: 0, byteLength: bytes.length }],
      buffers: [
        { byteLength: bytes.length, uri: `data:application/octet-stream;base64,${bytes.toString('base64')}` },
      ],
    }),
  );
}

/** A plan in inches: an L of walls, a stage, and a word that is no line. */
export function planDxf(): string {
  const line = (layer: string, points: [number, number][]) => [
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, points.length],
    [70, 1],
    ...points.flatMap(([x, y]) => [
      [10, x],
      [20, y],
    ]),
  ];
  const pairs = [
    ...[
      [0, 'SECTION'],
      [2, 'HEADER'],
      [9, '$INSUNITS'],
      [70, 1],
      [0, 'ENDSEC'],
      [0, 'SECTION'],
      [2, 'ENTITIES'],
    ],
    ...line('WALLS', [
      [0, 0],
      [600, 0],
      [600, 240],
      [360, 240],
      [360, 420],
      [0, 420],
    ]),
    ...line('STAGE', [
      [20, 80],
      [120, 80],
      [120, 340],
      [20, 340],
    ]),
    ...[
      [0, 'TEXT'],
      [8, 'NAMES'],
      [10, 200],
      [20, 200],
      [40, 10],
      [1, 'Boat store'],
      [0, 'ENDSEC'],
      [0, 'EOF'],
    ],
  ];
  return written('boat store.dxf', `${pairs.map(([code, value]) => `${code}\n${value}`).join('\n')}\n`);
}

/** A PNG of a plan: 600 by 400 pixels, a frame of walls from 60 to 540 and from 50 to 350. */
export const planPng = (): string => written('sketch.png', png(600, 400, isInk));

const isInk = (x: number, y: number) =>
  x >= 60 && x < 540 && y >= 50 && y < 350 && !(x >= 66 && x < 534 && y >= 56 && y < 344);

function png(width: number, height: number, ink: (x: number, y: number) => boolean): Buffer {
  const rows = Buffer.alloc((width + 1) * height, 255);
  for (let y = 0; y < height; y++) {
    rows[y * (width + 1)] = 0;
    for (let x = 0; x < width; x++) if (ink(x, y)) rows[y * (width + 1) + 1 + x] = 40;
  }
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([8, 0, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

function chunk(name: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(name, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crc32(body), out.length - 4);
  return out;
}

/** A picture that says it has 200 megapixels. */
export const hugePng = (): string => {
  const bytes = png(4, 4, () => false);
  bytes.writeUInt32BE(16_000, 16);
  bytes.writeUInt32BE(12_500, 20);
  return written('huge.png', bytes);
};

/** Two million faces of three corners. */
export const manyFaces = (): string =>
  written('many.obj', 'v 0 0 0\nv 1 0 0\nv 0 1 0\n' + 'f 1 2 3\n'.repeat(2_000_000));
