import { describe, expect, it } from 'vitest';
import { bytesOfText } from '../formats/index.js';
import { boxObj, dxf, line, lwpolyline } from './filesForTest.js';
import { likelyUnitM, likelyUp, modelBounds, placedModel, triangleCount, type Model } from './model.js';
import { readModel } from './readModel.js';

const read = (name: string, text: string) => readModel(name, bytesOfText(text));

/** A triangle as glTF text, its corners inside; as many numbers as are given. */
function gltf(
  numbers: number[],
  more: Record<string, unknown> = {},
  node: Record<string, unknown> = {},
  mode = 4,
) {
  const bytes = new Uint8Array(Float32Array.from(numbers).buffer);
  const uri = `data:application/octet-stream;base64,${btoa(String.fromCharCode(...bytes))}`;
  const count = numbers.length / 3;
  return JSON.stringify({
    asset: { version: '2.0' },
    scene: 0,
    scenes: [{ nodes: [0] }],
    nodes: [{ mesh: 0, name: 'Wall', ...node }],
    meshes: [{ primitives: [{ attributes: { POSITION: 0 }, mode }] }],
    accessors: [{ bufferView: 0, componentType: 5126, count, type: 'VEC3', min: [0, 0, 0], max: [9, 9, 9] }],
    bufferViews: [{ buffer: 0, byteLength: bytes.length }],
    buffers: [{ byteLength: bytes.length, uri }],
    ...more,
  });
}

describe('OBJ', () => {
  it('gives each object its faces, cut into triangles', async () => {
    const model = await read('box.obj', boxObj());
    expect(model.surfaces.map((s) => s.name)).toEqual(['Floor', 'Ceiling', 'Left', 'Rear', 'Right', 'Front']);
    expect(triangleCount(model)).toBe(12);
    expect(modelBounds(model, 'z')).toEqual({ least: { x: 0, y: 0, z: 0 }, most: { x: 8, y: 5, z: 3 } });
    expect([model.unitM, model.up]).toEqual([null, null]);
  });

  it('tells a face that names a corner that is not there, and what holds nothing', async () => {
    await expect(read('a.obj', 'v 0 0 0\nv 1 0 0\nf 1 2 9\n')).rejects.toThrow(/corner that is not there/);
    await expect(read('a.obj', 'v 0 0 nan\nv 1 0 0\nv 0 1 0\nf 1 2 3\n')).rejects.toThrow(/no number/);
    await expect(read('a.obj', 'p 1\n')).rejects.toThrow(/no faces and no lines.*1 points by themselves/);
    await expect(read('a.obj', '')).rejects.toThrow(/empty/);
  });

  it('refuses two million faces before it reads them', async () => {
    const text = 'v 0 0 0\nv 1 0 0\nv 0 1 0\n' + 'f 1 2 3\n'.repeat(2_000_000);
    await expect(read('many.obj', text)).rejects.toThrow(/2,000,000 faces; up to 500,000/);
  });
});

describe('glTF', () => {
  it('puts a mesh where its node puts it, in metres, y up', async () => {
    const text = gltf([0, 0, 0, 2, 0, 0, 0, 3, 0], {}, { translation: [10, 1, -4], scale: [2, 1, 1] });
    const model = await read('wall.gltf', text);
    expect(model.surfaces[0]!.name).toBe('Wall');
    expect([...model.surfaces[0]!.triangles]).toEqual([10, 1, -4, 14, 1, -4, 10, 4, -4]);
    expect([model.unitM, model.up]).toEqual([1, 'y']);
  });

  it('reads strips, fans and loops of lines', async () => {
    const square = [0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0];
    const strip = await read('a.gltf', gltf(square, {}, {}, 5));
    expect([...strip.surfaces[0]!.triangles.subarray(9)]).toEqual([0, 1, 0, 1, 0, 0, 1, 1, 0]);
    const fan = await read('a.gltf', gltf(square, {}, {}, 6));
    expect([...fan.surfaces[0]!.triangles.subarray(9)]).toEqual([0, 0, 0, 0, 1, 0, 1, 1, 0]);
    const loop = await read('a.gltf', gltf(square, {}, {}, 2));
    expect(loop.lines).toMatchObject([{ isClosed: true }]);
  });

  it('says what it cannot do without', async () => {
    const buffers = [{ byteLength: 36, uri: 'room.bin' }];
    await expect(read('a.gltf', gltf(new Array(9).fill(0), { buffers }))).rejects.toThrow(/room\.bin.*GLB/);
    const extensionsRequired = ['KHR_draco_mesh_compression'];
    await expect(read('a.gltf', gltf(new Array(9).fill(0), { extensionsRequired }))).rejects.toThrow(
      /without compression/,
    );
    await expect(read('a.gltf', gltf([0, 0, NaN, 1, 0, 0, 0, 1, 0]))).rejects.toThrow(/no number/);
    await expect(read('a.glb', 'glTF but not')).rejects.toThrow(/not glTF/);
    const { accessors } = JSON.parse(gltf(new Array(9).fill(0))) as { accessors: object[] };
    const many = [{ ...accessors[0], count: 6_000_000 }];
    await expect(read('a.gltf', gltf(new Array(9).fill(0), { accessors: many }))).rejects.toThrow(
      /2,000,000 faces/,
    );
  });
});

describe('DXF', () => {
  it('reads lines by their layers, and inches where its header says so', async () => {
    const text = dxf(
      [
        ...lwpolyline('WALLS', [
          [0, 0],
          [240, 0],
          [240, 120],
          [0, 120],
        ]),
        ...line('SEATS', [10, 10], [20, 10]),
      ],
      {
        insunits: 1,
      },
    );
    const model = await read('plan.dxf', text);
    expect(model.unitM).toBe(0.0254);
    expect(model.lines.map((l) => [l.name, l.isClosed])).toEqual([
      ['WALLS', true],
      ['SEATS', false],
    ]);
    const { most } = modelBounds(
      placedModel(model, { up: 'z', unitM: 0.0254, turnDeg: 0, at: { x: 0, y: 0, z: 0 } }),
      'z',
    );
    expect(most.x).toBeCloseTo(3.048, 12); // 240 in are 6.096 m, about their middle
  });

  it('draws arcs of polylines: a bulge of 1 is half a circle', async () => {
    const model = await read(
      'a.dxf',
      dxf(
        lwpolyline(
          'A',
          [
            [0, 0, 1],
            [2, 0],
          ],
          false,
        ),
      ),
    );
    const { points } = model.lines[0]!;
    for (let i = 0; i < points.length; i += 3)
      expect(Math.hypot(points[i]! - 1, points[i + 1]!)).toBeCloseTo(1, 12);
    // counter-clockwise from left to right is below
    expect(Math.min(...points.filter((_, i) => i % 3 === 1))).toBeCloseTo(-1, 3);
  });

  it('puts blocks where they are inserted, turned and scaled, on the layer of the insert', async () => {
    const blocks = [
      [0, 'BLOCK'],
      [8, '0'],
      [2, 'SEAT'],
      [70, 0],
      [10, 1],
      [20, 0],
      [30, 0],
      ...line('0', [1, 0], [2, 0]),
      [0, 'ENDBLK'],
    ];
    const insert = [
      [0, 'INSERT'],
      [8, 'ROWS'],
      [2, 'SEAT'],
      [10, 5],
      [20, 5],
      [30, 0],
      [41, 2],
      [42, 2],
      [50, 90],
    ];
    const model = await read('a.dxf', dxf(insert, { blocks }));
    expect(model.lines[0]!.name).toBe('ROWS');
    const expected = [5, 5, 0, 5, 7, 0];
    [...model.lines[0]!.points].forEach((v, i) => expect(v).toBeCloseTo(expected[i]!, 12));
  });

  it('reads faces of three and of four corners', async () => {
    const face = (corners: number[][]) => [
      [0, '3DFACE'],
      [8, 'FLOOR'],
      ...corners.flatMap(([x, y, z], k) => [
        [10 + k, x!],
        [20 + k, y!],
        [30 + k, z!],
      ]),
    ];
    const model = await read(
      'a.dxf',
      dxf([
        ...face([
          [0, 0, 0],
          [4, 0, 0],
          [4, 3, 0],
          [0, 3, 0],
        ]),
        ...face([
          [0, 0, 1],
          [4, 0, 1],
          [4, 3, 1],
          [4, 3, 1],
        ]),
      ]),
    );
    expect(triangleCount(model)).toBe(3);
    expect(model.surfaces.map((s) => s.name)).toEqual(['FLOOR']);
  });

  it('mirrors what is drawn from below: an extrusion straight down', async () => {
    const circle = [
      [0, 'CIRCLE'],
      [8, 'A'],
      [10, 3],
      [20, 4],
      [30, 0],
      [40, 1],
      [210, 0],
      [220, 0],
      [230, -1],
    ];
    const model = await read('a.dxf', dxf(circle));
    const { least, most } = modelBounds(model, 'z');
    expect((least.x + most.x) / 2).toBeCloseTo(-3, 6);
    expect((least.y + most.y) / 2).toBeCloseTo(4, 6);
  });

  it('tells what it left out, cut-off files and binary ones', async () => {
    const text = [
      [0, 'TEXT'],
      [8, 'A'],
      [10, 0],
      [20, 0],
      [1, 'Bar'],
    ];
    const hatch = [
      [0, 'HATCH'],
      [8, 'A'],
      [70, 1],
    ];
    const model = await read('a.dxf', dxf([...line('A', [0, 0], [1, 1]), ...text, ...text, ...hatch]));
    expect(model.left).toEqual(
      expect.arrayContaining([
        { what: 'texts', count: 2 },
        { what: 'HATCH', count: 1 },
      ]),
    );
    const whole = dxf(line('A', [0, 0], [1, 1]));
    await expect(read('a.dxf', whole.slice(0, -20))).rejects.toThrow(/cut off/);
    await expect(read('a.dxf', 'AutoCAD Binary DXF\r\n')).rejects.toThrow(/binary/);
    await expect(read('a.dxf', 'hello')).rejects.toThrow(/no section/);
  });
});

describe('placing', () => {
  const flat = (points: number[]): Pick<Model, 'surfaces' | 'lines'> => ({
    surfaces: [],
    lines: [{ name: 'a', points: Float64Array.from(points), isClosed: false }],
  });

  it('turns a model with y up without mirroring it', () => {
    // a corner ahead along x, one up, one to the side: their triple product keeps its sign
    const model = flat([0, 0, 0, 2, 0, 0, 0, 4, 0, 0, 0, 6]);
    const at = { x: 0, y: 0, z: 0 };
    const [o, a, b, c] = [0, 3, 6, 9].map((i) => {
      const { points } = placedModel(model as Model, { up: 'y', unitM: 1, turnDeg: 0, at }).lines[0]!;
      return [...points.subarray(i, i + 3)];
    }) as [number[], number[], number[], number[]];
    const from = (p: number[]) => p.map((v, k) => v - o[k]!);
    expect([from(a), from(b), from(c)]).toEqual([
      [2, 0, 0],
      [0, 0, 4],
      [0, -6, 0],
    ]);
  });

  it('lays the middle of the lowest level where it is asked to, turned by quarters exactly', () => {
    const placed = placedModel(flat([10, 20, 5, 14, 22, 5]) as Model, {
      up: 'z',
      unitM: 0.5,
      turnDeg: 90,
      at: { x: 3, y: 4, z: 1 },
    });
    expect([...placed.lines[0]!.points]).toEqual([3.5, 3, 1, 2.5, 5, 1]);
  });

  it('takes the unit in which a model is as large as a place, and the least extent for the height', () => {
    expect(likelyUnitM(flat([0, 0, 0, 12_000, 8000, 0]))).toBe(0.001);
    expect(likelyUnitM(flat([0, 0, 0, 12, 8, 4]))).toBe(1);
    expect(likelyUnitM(flat([0, 0, 0, 900, 600, 0]))).toBe(0.01);
    expect(likelyUp(flat([0, 0, 0, 12, 4, 8]))).toBe('y');
    expect(likelyUp(flat([0, 0, 0, 12, 8, 4]))).toBe('z');
  });
});
