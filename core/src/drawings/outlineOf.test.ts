import { describe, expect, it } from 'vitest';
import { bytesOfText } from '../formats/index.js';
import { areaOf } from '../geometry/index.js';
import { boxObj, dxf, line, lwpolyline } from './filesForTest.js';
import { drawnEdges, modelReport } from './modelReport.js';
import { outlineOf } from './outlineOf.js';
import { readModel } from './readModel.js';

const read = (name: string, text: string) => readModel(name, bytesOfText(text));

describe('outline of a room', () => {
  it('is the border of the floor of a mesh, and its height what lies between floor and ceiling', async () => {
    const found = outlineOf(await read('box.obj', boxObj({ x: -2, y: 1, z: 0 })))!;
    expect(found.from).toBe('floor');
    expect(found.above).toEqual({ heightM: 3, ceiling: { kind: 'flat' }, isSimpler: false });
    expect(found.corners).toHaveLength(4);
    expect(areaOf(found.corners)).toBeCloseTo(40, 9);
    expect(found.corners).toContainEqual({ x: -2, y: 1 });
    expect(found.corners).toContainEqual({ x: 6, y: 6 });
  });

  it('keeps the corners of an L, and of a round wall what it takes', async () => {
    const el: [number, number][] = [
      [0, 0],
      [9, 0],
      [9, 4],
      [5, 4],
      [5, 7],
      [0, 7],
    ];
    const found = outlineOf(await read('l.dxf', dxf(lwpolyline('W', el))))!;
    expect(found).toMatchObject({ from: 'closed line', above: null });
    expect(found.corners).toHaveLength(6);
    expect(areaOf(found.corners)).toBeCloseTo(9 * 4 + 5 * 3, 9);
    const circle = [
      [0, 'CIRCLE'],
      [8, 'W'],
      [10, 0],
      [20, 0],
      [30, 0],
      [40, 6],
    ];
    const round = outlineOf(await read('round.dxf', dxf(circle)))!;
    // a polygon of 48 sides within the circle: n/2 r^2 sin(2 pi / n)
    expect(areaOf(round.corners)).toBeCloseTo(24 * 36 * Math.sin((2 * Math.PI) / 48), 2);
  });

  it('joins lines that were drawn one by one, a millimetre apart, and takes the largest loop', async () => {
    const walls = [
      ...line('W', [0, 0], [10, 0.001]),
      ...line('W', [10, 0], [10, 6]),
      ...line('W', [0, 6], [10, 6]),
      ...line('W', [0, 6], [0, 0]),
    ];
    const table = lwpolyline('FURNITURE', [
      [2, 2],
      [4, 2],
      [4, 3.5],
      [2, 3.5],
    ]);
    const found = outlineOf(await read('a.dxf', dxf([...walls, ...table])))!;
    expect(areaOf(found.corners)).toBeCloseTo(60, 1);
  });

  it('is none where nothing is closed', async () => {
    const open = dxf([...line('W', [0, 0], [10, 0]), ...line('W', [10, 0], [10, 6])]);
    expect(outlineOf(await read('a.dxf', open))).toBeNull();
  });
});

describe('ceiling over it', () => {
  /** A box of 8 by 5 with other heights over its corners, and where the ridge ends if there is one. */
  const room = async (tops: [number, number, number, number], ridge: [number, number, number][] = []) => {
    const at = [
      [0, 0],
      [8, 0],
      [8, 5],
      [0, 5],
    ] as const;
    const text = [
      ...at.map(([x, y]) => `v ${x} ${y} 0`),
      ...at.map(([x, y], i) => `v ${x} ${y} ${tops[i]}`),
      ...ridge.map((p) => `v ${p.join(' ')}`),
      'o Room',
      'f 4 3 2 1',
      'f 1 2 6 5',
      'f 2 3 7 6',
      'f 3 4 8 7',
      'f 4 1 5 8',
      ...(ridge.length === 2 ? ['f 5 6 10 9', 'f 7 8 9 10'] : ['f 5 6 7 8']),
      '',
    ].join('\n');
    return outlineOf(await read('a.obj', text))!.above;
  };

  it('rises to one side, or to a ridge in the middle, from front to rear or across', async () => {
    expect(await room([3, 5, 5, 3])).toEqual({
      heightM: 3,
      ceiling: { kind: 'pitched', along: 'x', highM: 5 },
      isSimpler: false,
    });
    const along = await room(
      [3, 3, 3, 3],
      [
        [0, 2.5, 5],
        [8, 2.5, 5],
      ],
    );
    expect(along).toEqual({
      heightM: 3,
      ceiling: { kind: 'ridged', along: 'x', highM: 5 },
      isSimpler: false,
    });
    const across = await room(
      [3, 3, 3, 3],
      [
        [4, 0, 5],
        [4, 5, 5],
      ],
    );
    expect(across).toMatchObject({ ceiling: { kind: 'ridged', along: 'y', highM: 5 } });
  });

  it('is taken as level where it is something else, and says so', async () => {
    expect(await room([5, 3, 3, 5])).toEqual({ heightM: 5, ceiling: { kind: 'flat' }, isSimpler: true });
    const aside = await room(
      [3, 3, 3, 3],
      [
        [0, 1.5, 5],
        [8, 1.5, 5],
      ],
    );
    expect(aside).toMatchObject({ heightM: 5, isSimpler: true });
  });
});

describe('report', () => {
  it('finds a closed box closed, and one without its ceiling open by its four upper edges', async () => {
    expect(modelReport(await read('a.obj', boxObj()))).toMatchObject({
      faces: 12,
      flat: 0,
      holes: { count: 0, edges: 0, longestM: 0 },
      crowded: 0,
    });
    const open = modelReport(await read('a.obj', boxObj(undefined, ['Ceiling'])));
    expect(open.holes.count).toBe(1);
    expect(open.holes.edges).toBe(4);
    expect(open.holes.longestM).toBeCloseTo(2 * (8 + 5), 9);
  });

  it('counts faces without an area', async () => {
    const text = boxObj() + 'o Sliver\nv 0 0 0\nv 1 0 0\nv 2 0 0\nf 9 10 11\n';
    expect(modelReport(await read('a.obj', text)).flat).toBe(1);
  });

  it('draws the twelve edges of a box, not the diagonals of its faces', async () => {
    const { ends, of } = drawnEdges(await read('a.obj', boxObj()));
    expect([ends.length / 6, of]).toEqual([12, 12]);
  });
});
