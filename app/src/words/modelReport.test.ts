import { examineModel, readModel } from '@pebble-hall/core/drawings';
import { expect, it } from 'vitest';
import { modelReportWords } from './modelReport';

const metres = (m: number) => `${Number(m.toFixed(2))} m`;
const told = async (name: string, text: string) => {
  const seen = examineModel(await readModel(name, new TextEncoder().encode(text)), { unitM: null, up: null });
  return modelReportWords(seen, metres);
};

/** A pyramid over a square without its floor. */
const PYRAMID = `v 0 0 0
v 6 0 0
v 6 6 0
v 0 6 0
v 3 3 4
o Roof
f 1 2 5
f 2 3 5
f 3 4 5
f 4 1 5
`;

it('tells what was assumed, and where a mesh is open', async () => {
  const lines = (await told('a.obj', PYRAMID)).map((l) => l.text).join('\n');
  expect(lines).toMatch(/4 faces in 1 surface \(Roof\)/);
  expect(lines).toMatch(/does not say its unit\. In metres it measures 6 m × 6 m × 4 m/);
  expect(lines).toMatch(/Open in 1 place: 4 edges belong to one face only, the longest way round is 24 m/);
  expect(lines).toMatch(/No outline in it is closed/);
});

it('tells what the file itself says, and what was left out', async () => {
  const pairs = [
    ...[0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, 1, 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES'],
    ...[
      0,
      'LWPOLYLINE',
      8,
      'WALLS',
      90,
      4,
      70,
      1,
      10,
      0,
      20,
      0,
      10,
      400,
      20,
      0,
      10,
      400,
      20,
      200,
      10,
      0,
      20,
      200,
    ],
    ...[0, 'TEXT', 8, 'WALLS', 10, 0, 20, 0, 1, 'Bar', 0, 'ENDSEC', 0, 'EOF'],
  ];
  const lines = await told('a.dxf', `${pairs.join('\n')}\n`);
  expect(lines.map((l) => l.text)).toEqual([
    'DXF: 1 line named WALLS.',
    'In inches, as the file says: 10.16 m × 5.08 m × 0 m.',
    'Its largest closed line has 4 corners and 51.6 m².',
    'Left out: texts (1).',
  ]);
  expect(lines.some((l) => l.attention)).toBe(false);
});
