import type { BalloonData } from '../directivity/index.js';
import { FormatError, textLines } from '../formats/index.js';
import { againstBand, type ReadLoudspeaker } from './readLoudspeaker.js';

/**
 * Levels in one plane through the axis. `aboutDeg` tells which: 0 is level, positive angles to its left; 90 upright, positive
 * angles upwards.
 */
export interface PolarPlane {
  aboutDeg: number;
  /** degrees off the axis, -180 to 180, ascending */
  angleDeg: number[];
  /** Hz, ascending */
  frequency: number[];
  /** `[angle][frequency]`; NaN in gaps */
  levelDb: number[][];
  /** degrees, against that on the axis where only that is known; null where nobody measured it */
  phaseDeg: number[][] | null;
}

export interface PolarTable {
  name: string;
  sensitivityDb: number | null;
  largestDb: number | null;
  planes: PolarPlane[];
}

const MOST_FREQUENCIES = 400;
/** Over a gap of more than this nothing is made up, degrees. */
const MOST_GAP_DEG = 30;
const MOST_DB = 250;
/** Fewer angles in a plane are no polar. */
const FEWEST_ANGLES = 5;

/**
 * Reads a table of polar data, as `docs/formats.md` has it.
 * @throws FormatError naming the line, or what is missing
 */
export function readPolarTable(text: string): ReadLoudspeaker {
  const table = tableOf(text);
  const notes: string[] = [];
  return { ...balloonOf(table, notes), notes };
}

/** The table as it stands in the text. */
function tableOf(text: string): PolarTable {
  const table: PolarTable = { name: '', sensitivityDb: null, largestDb: null, planes: [] };
  const open: { plane: PolarPlane | null; isPhase: boolean; hasHead: boolean } = {
    plane: null,
    isPhase: false,
    hasHead: false,
  };
  textLines(text, 'a table of polar data').forEach((raw, index) => {
    const line = raw.trim();
    const where = `Line ${index + 1}`;
    if (line === '' || /^(\*|#|;|"|\/\/|%|!)/.test(line)) return;
    const keyed = /^([a-z][a-z ]{0,30}?) {0,8}[:=](.{0,200})/i.exec(line);
    if (keyed) {
      const [key, value] = [keyed[1]!.toLowerCase(), keyed[2]!.replace(/[\s;,]+$/, '').trimStart()];
      if (key === 'name') table.name = value.slice(0, 60);
      else if (key === 'sensitivity') table.sensitivityDb = headNumber(where, key, value);
      else if (key === 'largest level') table.largestDb = headNumber(where, key, value);
      else if (key === 'plane' || key === 'phase') {
        open.plane = planeOf(table, aboutOf(where, value));
        [open.isPhase, open.hasHead] = [key === 'phase', false];
      }
      return;
    }
    if (!open.plane)
      throw new FormatError(
        `${where} stands before a plane is named: "${line.slice(0, 40)}". Begin each table with "plane: horizontal" or "plane: vertical".`,
      );
    // a unit belongs to its number, however they stand apart
    const cells = cellsOf(open.hasHead ? line : line.replace(/(\d)\s+(k?hz)\b/gi, '$1$2'));
    if (!open.hasHead) readHead(where, cells, open.plane, open.isPhase);
    else readRow(where, cells, open.plane, open.isPhase);
    open.hasHead = true;
  });
  if (table.planes.length === 0)
    throw new FormatError(
      'No plane was found in the file. A table of polar data begins with "plane: horizontal", then a row "angle" with frequencies.',
    );
  return table;
}

function headNumber(where: string, key: string, value: string): number {
  const number = Number(value.replace(',', '.').replace(/\s*dB.*$/i, ''));
  if (!(number > 40 && number < 200))
    throw new FormatError(`${where}: a ${key} of "${value}" is no level in dB.`);
  return number;
}

function aboutOf(where: string, value: string): number {
  const word = value.toLowerCase();
  if (word === 'horizontal') return 0;
  if (word === 'vertical') return 90;
  const number = Number(word.replace(/\s*(°|degrees?)$/, ''));
  if (word === '' || !(number >= 0 && number < 180))
    throw new FormatError(
      `${where}: a plane is horizontal, vertical, or degrees about the axis from 0 to below 180, not "${value}".`,
    );
  return number;
}

function planeOf(table: PolarTable, aboutDeg: number): PolarPlane {
  const known = table.planes.find((p) => p.aboutDeg === aboutDeg);
  if (known) return known;
  const plane: PolarPlane = { aboutDeg, angleDeg: [], frequency: [], levelDb: [], phaseDeg: null };
  table.planes.push(plane);
  return plane;
}

/** Between cells stand tabs, semicolons, commas or spaces; where it is no comma, one within a number is a decimal comma. */
function cellsOf(line: string): string[] {
  const spaced = line.split(/\s+/);
  const areSpaced =
    spaced.length > 2 && spaced.every((c) => !c.endsWith(',') && (c.match(/,/g)?.length ?? 0) <= 1);
  const by = line.includes('\t')
    ? '\t'
    : line.includes(';')
      ? ';'
      : areSpaced
        ? / +/
        : line.includes(',')
          ? ','
          : / +/;
  return line.split(by).map((c) => (by === ',' ? c.trim() : c.trim().replace(',', '.')));
}

function readHead(where: string, cells: string[], plane: PolarPlane, isPhase: boolean): void {
  const [first, ...rest] = cells;
  const frequency = rest
    .filter((c) => c !== '')
    .map((c) => {
      const found = /^([\d.]+)\s*(k)?\s*(hz)?$/i.exec(c);
      return found ? Number(found[1]) * (found[2] ? 1000 : 1) : NaN;
    });
  if (!/^angle/i.test(first ?? '') || frequency.length === 0 || frequency.some(Number.isNaN))
    throw new FormatError(`${where}: a plane begins with a row "angle" and the frequencies in Hz.`);
  if (frequency.length > MOST_FREQUENCIES)
    throw new FormatError(`${where}: ${frequency.length} frequencies; up to ${MOST_FREQUENCIES} are taken.`);
  const low = frequency.find((f) => !(f > 0));
  if (low !== undefined) throw new FormatError(`${where}: the frequency ${low} is not above 0 Hz.`);
  if (frequency.some((f, i) => i > 0 && f <= frequency[i - 1]!))
    throw new FormatError(`${where}: the frequencies must ascend.`);
  if (isPhase) {
    if (plane.levelDb.length === 0)
      throw new FormatError(`${where}: phases stand before the levels of their plane.`);
    if (!isAlike(plane.frequency, frequency))
      throw new FormatError(`${where}: the phases have other frequencies than the levels of their plane.`);
    plane.phaseDeg = plane.angleDeg.map(() => frequency.map(() => NaN));
  } else {
    if (plane.levelDb.length > 0) throw new FormatError(`${where}: this plane stands there twice.`);
    plane.frequency = frequency;
  }
}

function readRow(where: string, cells: string[], plane: PolarPlane, isPhase: boolean): void {
  const number = (cell: string): number => {
    if (cell === '' || cell === '-' || /^nan$/i.test(cell)) return NaN;
    const v = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(cell) ? Number(cell) : Infinity;
    if (!(Math.abs(v) <= (isPhase ? 1e6 : MOST_DB)))
      throw new FormatError(
        `${where}: "${cell.slice(0, 20)}" is no ${isPhase ? 'phase in degrees' : 'level in dB'}.`,
      );
    return v;
  };
  const angle = Number((cells[0] ?? '').replace('°', ''));
  if (cells[0] === '' || !(angle >= -180 && angle <= 360))
    throw new FormatError(`${where} does not begin with an angle from -180 to 360 degrees: "${cells[0]}".`);
  const values = plane.frequency.map((_, i) => number(cells[i + 1] ?? ''));
  if (cells.slice(plane.frequency.length + 1).some((c) => c !== ''))
    throw new FormatError(`${where} has more values than there are frequencies.`);
  const off = angle > 180 ? angle - 360 : angle;
  if (isPhase) {
    const nth = plane.angleDeg.indexOf(off);
    if (nth < 0)
      throw new FormatError(`${where}: the levels of this plane have no angle of ${angle} degrees.`);
    plane.phaseDeg![nth] = values;
    return;
  }
  if (plane.angleDeg.includes(off)) throw new FormatError(`${where}: the angle ${angle} stands there twice.`);
  const place = plane.angleDeg.findIndex((a) => a > off);
  plane.angleDeg.splice(place < 0 ? plane.angleDeg.length : place, 0, off);
  plane.levelDb.splice(place < 0 ? plane.levelDb.length : place, 0, values);
}

const isAlike = (a: readonly number[], b: readonly number[]) =>
  a.length === b.length && a.every((v, i) => v === b[i]);

/** Half a plane, from the axis to behind it. */
interface Half {
  aboutDeg: number;
  angleDeg: number[];
  levelDb: number[][];
  phaseDeg: number[][] | null;
}

/** A balloon from planes, every gap told. */
export function balloonOf(table: PolarTable, notes: string[]): Omit<ReadLoudspeaker, 'notes'> {
  const { frequency } = table.planes[0]!;
  for (const plane of table.planes) {
    if (!isAlike(plane.frequency, frequency))
      throw new FormatError('The planes have different frequencies. Give all of them at the same ones.');
    if (plane.angleDeg.length < FEWEST_ANGLES)
      throw new FormatError(
        `The ${planeWord(plane.aboutDeg)} has ${plane.angleDeg.length} angles; at least ${FEWEST_ANGLES} make a polar.`,
      );
    if (!plane.angleDeg.includes(0))
      throw new FormatError(
        `The ${planeWord(plane.aboutDeg)} has no angle 0: what lies on the axis must be known.`,
      );
  }
  let filled = 0;
  const axisOf = (p: PolarPlane) => p.levelDb[p.angleDeg.indexOf(0)]!;
  const axisDb = frequency.map((f, n) => {
    const values = table.planes.map((p) => axisOf(p)[n]!);
    if (values.some(Number.isNaN)) throw new FormatError(`On the axis the level at ${f} Hz is missing.`);
    if (Math.max(...values) - Math.min(...values) > 1)
      throw new FormatError(
        `At ${f} Hz the planes differ by more than 1 dB on the axis, where they meet. Are they of the same measurement?`,
      );
    return values.reduce((a, b) => a + b, 0) / values.length;
  });
  const halves = table.planes.flatMap((p) => halvesOf(p, notes));
  for (const half of halves) filled += fillGaps(half, frequency);
  if (filled > 0)
    notes.push(
      `${filled} ${filled === 1 ? 'value was' : 'values were'} missing: taken from the angles beside ${filled === 1 ? 'it' : 'them'}.`,
    );
  if (table.planes.length === 1)
    notes.push(
      `Only the ${planeWord(table.planes[0]!.aboutDeg)} is given: across it, it is taken as the same.`,
    );
  const last = Math.min(...halves.map((h) => h.angleDeg.at(-1)!));
  if (last < 180) notes.push(`Beyond ${last}° off the axis nothing is given: what is there is held.`);
  if (axisDb.every((v) => v === 0))
    notes.push('Levels are against the axis: the axis itself is taken as flat.');
  halves.sort((a, b) => a.aboutDeg - b.aboutDeg);
  const data = gridOf(halves, frequency, axisDb);
  return {
    name: table.name,
    sensitivityDb: table.sensitivityDb,
    largestDb: table.largestDb,
    data,
    axis: againstBand({ frequency: Float64Array.from(frequency), levelDb: Float64Array.from(axisDb) }),
  };
}

const planeWord = (aboutDeg: number) =>
  aboutDeg === 0 ? 'horizontal plane' : aboutDeg === 90 ? 'vertical plane' : `plane at ${aboutDeg}°`;

function halvesOf(plane: PolarPlane, notes: string[]): Half[] {
  const { angleDeg, levelDb, phaseDeg, aboutDeg } = plane;
  const half = (sign: 1 | -1): Half => {
    const order = angleDeg
      .map((angle, i) => ({ angle: angle === -180 || angle === 180 ? 180 : sign * angle, i }))
      .filter(({ angle }) => angle >= 0)
      .sort((a, b) => a.angle - b.angle)
      .filter(({ angle }, n, all) => n === 0 || angle !== all[n - 1]!.angle);
    return {
      aboutDeg: sign > 0 ? aboutDeg : aboutDeg + 180,
      angleDeg: order.map((o) => o.angle),
      levelDb: order.map((o) => [...levelDb[o.i]!]),
      phaseDeg: phaseDeg && order.map((o) => [...phaseDeg[o.i]!]),
    };
  };
  const [one, other] = [half(1), half(-1)];
  const isThere = (h: Half) => h.angleDeg.some((a) => a > 0 && a < 180);
  if (isThere(one) && isThere(other)) return [one, other];
  notes.push(`The ${planeWord(aboutDeg)} is given to one side: the other is taken as the same.`);
  const given = isThere(one) ? one : other;
  return [
    { ...given, aboutDeg },
    {
      ...given,
      aboutDeg: aboutDeg + 180,
      levelDb: given.levelDb.map((r) => [...r]),
      phaseDeg: given.phaseDeg?.map((r) => [...r]) ?? null,
    },
  ];
}

/** Fills what is missing between angles that are there. @returns how many values that were @throws FormatError for wide gaps */
function fillGaps({ angleDeg, levelDb, phaseDeg, aboutDeg }: Half, frequency: readonly number[]): number {
  const where = (f: number) => `${planeWord(aboutDeg % 180)}, ${f} Hz`;
  const wide = angleDeg.findIndex((a, i) => i > 0 && a - angleDeg[i - 1]! > MOST_GAP_DEG);
  if (wide > 0)
    throw new FormatError(
      `Between ${angleDeg[wide - 1]}° and ${angleDeg[wide]}° of the ${planeWord(aboutDeg % 180)} nothing is given; gaps up to ${MOST_GAP_DEG}° are filled.`,
    );
  let filled = 0;
  for (const values of phaseDeg ? [levelDb, phaseDeg] : [levelDb])
    frequency.forEach((f, n) => {
      const there = angleDeg.flatMap((_, i) => (Number.isNaN(values[i]![n]) ? [] : [i]));
      angleDeg.forEach((angle, i) => {
        if (!Number.isNaN(values[i]![n])) return;
        const after = there.find((j) => j > i);
        const before = there.filter((j) => j < i).at(-1);
        if (
          before === undefined ||
          (after !== undefined && angleDeg[after]! - angleDeg[before]! > MOST_GAP_DEG)
        )
          throw new FormatError(
            `${where(f)}: values about ${angle}° are missing; gaps up to ${MOST_GAP_DEG}° are filled.`,
          );
        if (after === undefined && angle - angleDeg[before]! > MOST_GAP_DEG)
          throw new FormatError(`${where(f)}: values from ${angleDeg[before]}° on are missing.`);
        const [a, b] = [before, after ?? before];
        const t = b === a ? 0 : (angle - angleDeg[a]!) / (angleDeg[b]! - angleDeg[a]!);
        values[i]![n] = values[a]![n]! + t * (values[b]![n]! - values[a]![n]!);
        filled++;
      });
    });
  return filled;
}

/** All halves on the angles of all of them. */
function gridOf(
  halves: readonly Half[],
  frequency: readonly number[],
  axisDb: readonly number[],
): BalloonData {
  const rows = [...new Set(halves.flatMap((h) => h.angleDeg))].sort((a, b) => a - b);
  const hasPhase = halves.every((h) => h.phaseDeg !== null);
  const cells = rows.length * halves.length;
  const layer = () => frequency.map(() => new Float32Array(cells));
  const [re, im] = [layer(), layer()];
  halves.forEach((half, j) => {
    rows.forEach((row, i) => {
      const high = half.angleDeg.findIndex((a) => a >= row);
      const b = high < 0 ? half.angleDeg.length - 1 : high;
      const a = half.angleDeg[b] === row || b === 0 || high < 0 ? b : b - 1;
      const t = a === b ? 0 : (row - half.angleDeg[a]!) / (half.angleDeg[b]! - half.angleDeg[a]!);
      frequency.forEach((_, n) => {
        const between = (of: readonly number[][]) => (1 - t) * of[a]![n]! + t * of[b]![n]!;
        const size = 10 ** ((between(half.levelDb) - axisDb[n]!) / 20);
        const phase = hasPhase ? ((between(half.phaseDeg!) - half.phaseDeg![0]![n]!) * Math.PI) / 180 : 0;
        re[n]![i * halves.length + j] = size * Math.cos(phase);
        im[n]![i * halves.length + j] = size * Math.sin(phase);
      });
    });
  });
  return {
    pole: 'front',
    fromPoleDeg: Float64Array.from(rows),
    aboutDeg: Float64Array.from(halves, (h) => h.aboutDeg),
    frequency: Float64Array.from(frequency),
    re,
    im,
    hasPhase,
  };
}

/** Writes a table of polar data, tab-separated. @param comments lines put ahead, each after "* " */
export function writePolarTable(
  { name, sensitivityDb, largestDb, planes }: PolarTable,
  comments: string[] = [],
): string {
  const block = (
    word: string,
    { aboutDeg, angleDeg, frequency }: PolarPlane,
    values: number[][],
    digits: number,
  ) => [
    `${word}: ${aboutDeg === 0 ? 'horizontal' : aboutDeg === 90 ? 'vertical' : aboutDeg}`,
    ['angle', ...frequency.map((f) => +f.toFixed(3))].join('\t'),
    ...angleDeg.map((a, i) =>
      [+a.toFixed(3), ...values[i]!.map((v) => (Number.isNaN(v) ? '-' : v.toFixed(digits)))].join('\t'),
    ),
  ];
  return [
    ...comments.map((c) => `* ${c}`),
    `name: ${name}`,
    ...(sensitivityDb === null ? [] : [`sensitivity: ${sensitivityDb}`]),
    ...(largestDb === null ? [] : [`largest level: ${largestDb}`]),
    ...planes.flatMap((p) => [
      ...block('plane', p, p.levelDb, 2),
      ...(p.phaseDeg ? block('phase', p, p.phaseDeg, 1) : []),
    ]),
    '',
  ].join('\n');
}
