import { describe, expect, it } from 'vitest';
import { beamwidthDeg, layerGain, layerOfData, polarDb } from '../directivity/index.js';
import { readPolarTable, writePolarTable } from './polarTable.js';

/** Levels of a piston-like beam, dB, as a formula: -12 (angle / 60)^2, down to -30. */
const beam = (deg: number, width: number) => Math.max(-30, -6 * (deg / width) ** 2);
const ANGLES = Array.from({ length: 37 }, (_, i) => 10 * (i - 18)).filter((a) => a > -180);
const rows = (width: number) => ANGLES.map((a) => [a, beam(a, width), beam(a, width / 2)].join('\t'));
const TEXT = [
  '* by hand',
  'name: Heron 12',
  'sensitivity: 97 dB',
  'largest level = 131',
  'plane: horizontal',
  'angle\t1k\t2000 Hz',
  ...rows(60),
  'plane: vertical',
  'angle\t1000\t2000',
  ...rows(30),
].join('\n');
const db = ({ re, im }: { re: number; im: number }) => 10 * Math.log10(re * re + im * im);

describe('a table of polar data', () => {
  it('gives its own values back in its planes, and passes from one to the other between them', () => {
    const { data, name, sensitivityDb, largestDb, notes } = readPolarTable(TEXT);
    expect([name, sensitivityDb, largestDb]).toEqual(['Heron 12', 97, 131]);
    expect([...data.aboutDeg]).toEqual([0, 90, 180, 270]);
    const layer = layerOfData(data, 1000);
    for (const deg of [10, 40, 70]) {
      const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
      expect(db(layerGain(layer, c, s, 0))).toBeCloseTo(beam(deg, 60), 1);
      expect(db(layerGain(layer, c, 0, -s))).toBeCloseTo(beam(deg, 30), 1);
    }
    expect(beamwidthDeg(layer, 'horizontal')).toBeCloseTo(120, 0);
    expect(beamwidthDeg(layer, 'vertical')).toBeCloseTo(60, 0);
    // halfway about the axis the sizes are halfway
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    const size = Math.hypot(...Object.values(layerGain(layer, c, s * Math.SQRT1_2, s * Math.SQRT1_2)));
    expect(size).toBeCloseTo((10 ** (beam(30, 60) / 20) + 10 ** (beam(30, 30) / 20)) / 2, 2);
    expect(notes).toEqual(['Levels are against the axis: the axis itself is taken as flat.']);
  });

  it('holds a smooth beam between its angles within 0.3 dB', () => {
    const { db: seen, deg } = polarDb(layerOfData(readPolarTable(TEXT).data, 1000), 'horizontal');
    deg.forEach((d, i) => {
      if (Math.abs(d) <= 120) expect(Math.abs(seen[i]! - beam(d, 60))).toBeLessThan(0.3);
    });
  });

  it('reads decimal commas between semicolons, tabs and spaces, and points between commas', () => {
    const plain = readPolarTable(TEXT);
    const alike = [
      TEXT.replaceAll('.', ',').replaceAll('\t', ';'),
      TEXT.replaceAll('.', ','),
      TEXT.replaceAll('.', ',').replaceAll('\t', '  '),
      TEXT.replaceAll('\t', ', '),
    ];
    for (const text of alike) expect(readPolarTable(text).data).toEqual(plain.data);
  });

  it('takes what lies on the axis as its response, against its band', () => {
    const levels = [84, 96, 96, 95];
    const table = ['plane: horizontal', 'angle 100 200 400 800'];
    for (const a of [0, 30, 60, 90, 120, 150, 180])
      table.push([a, ...levels.map((v) => v - a / 10)].join(' '));
    const { axis, notes, data } = readPolarTable(table.join('\n'));
    expect([...axis.levelDb]).toEqual([-12, 0, 0, -1]);
    expect(notes.join(' ')).toMatch(/to one side.*Only the horizontal plane/);
    expect(db(layerGain(layerOfData(data, 200), -1, 0, 0))).toBeCloseTo(-18, 4);
  });

  it('keeps phases where they are given', () => {
    const table = ['plane: horizontal', 'angle 500'];
    const angles = [-180, -150, -120, -90, -60, -30, 0, 30, 60, 90, 120, 150];
    for (const a of angles) table.push(`${a} 0`);
    table.push('phase: horizontal', 'angle 500');
    for (const a of angles) table.push(`${a} ${100 + a / 2}`);
    const { data } = readPolarTable(table.join('\n'));
    const g = layerGain(layerOfData(data, 500), Math.cos(Math.PI / 3), Math.sin(Math.PI / 3), 0);
    expect((Math.atan2(g.im, g.re) * 180) / Math.PI).toBeCloseTo(30, 0);
  });

  it('fills small gaps and says how many', () => {
    const { notes } = readPolarTable(TEXT.replace('\n20\t-0.6666666666666666', '\n20\t-'));
    expect(notes[0]).toBe('1 value was missing: taken from the angles beside it.');
  });

  it('comes back as it was written', () => {
    const table = {
      name: 'Own',
      sensitivityDb: 90,
      largestDb: null,
      planes: [
        {
          aboutDeg: 0,
          angleDeg: [0, 45, 90, 135, 180],
          frequency: [100, 1000],
          levelDb: [0, 1, 2, 3, 4].map((v) => [-v, -2 * v]),
          phaseDeg: null,
        },
      ],
    };
    const text = writePolarTable(
      { ...table, planes: [{ ...table.planes[0]!, angleDeg: [0, 30, 60, 90, 120] }] },
      ['made here'],
    );
    const back = readPolarTable(text);
    expect(text).toMatch(/^\* made here\nname: Own\nsensitivity: 90\nplane: horizontal\n/);
    expect(db({ re: back.data.re[1]![2 * 2]!, im: 0 })).toBeCloseTo(-4, 4);
  });

  it.each<[string, RegExp, string]>([
    ['nothing', /No plane was found/, ''],
    ['binary data', /binary data/, 'a\u0000b'],
    ['0 Hz', /Line 2: the frequency 0 is not above 0 Hz/, 'plane: horizontal\nangle 0 100\n0 0 0'],
    ['a wide gap', /Between 30° and 90°/, 'plane: horizontal\nangle 100\n0 0\n10 0\n20 0\n30 0\n90 0'],
    [
      'missing values over a wide gap',
      /100 Hz: values about 20° are missing/,
      'plane: horizontal\nangle 100\n0 0\n10 0\n20 -\n30 -\n40 -\n50 0\n60 0',
    ],
    ['three points', /3 angles; at least 5/, 'plane: vertical\nangle 100\n0 0\n10 0\n20 0'],
    ['no axis', /no angle 0/, 'plane: vertical\nangle 100\n5 0\n10 0\n20 0\n30 0\n40 0'],
    ['a word for a level', /Line 3: "loud" is no level/, 'plane: vertical\nangle 100\n0 loud'],
    ['an endless level', /Line 3: "1e9" is no level/, 'plane: vertical\nangle 100\n0 1e9'],
    ['an angle twice', /Line 4: the angle 0 stands there twice/, 'plane: vertical\nangle 100\n0 0\n0 0'],
    ['frequencies that descend', /must ascend/, 'plane: vertical\nangle 200 100'],
    ['a plane of no name', /Line 1: a plane is horizontal/, 'plane: slanted\nangle 100'],
    ['rows before a plane', /Line 1 stands before a plane/, '0 0 0'],
    [
      'planes that differ on the axis',
      /differ by more than 1 dB/,
      ['horizontal', 'vertical']
        .map(
          (p, i) => `plane: ${p}\nangle 100\n` + [0, 30, 60, 90, 120].map((a) => `${a} ${3 * i}`).join('\n'),
        )
        .join('\n'),
    ],
  ])('refuses %s', (_, reason, text) => {
    expect(() => readPolarTable(text)).toThrow(reason);
  });
});
