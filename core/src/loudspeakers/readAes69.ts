import { dataGain, type BalloonData } from '../directivity/index.js';
import { FormatError, openAes69, type Aes69 } from '../formats/index.js';
import { cross, dot, lengthOf, minus, type Point } from '../geometry/index.js';
import { regularGrid } from './regularGrid.js';
import { againstBand, type ReadLoudspeaker } from './readLoudspeaker.js';
import { griddedBalloon, widestGapDeg, type Scattered } from './scattered.js';

const CONVENTION = 'FreeFieldDirectivityTF';
/** Of more frequencies, those nearest to steps of a twelfth of an octave are taken. */
const MOST_FREQUENCIES = 160;
const MOST_AXIS_FREQUENCIES = 4000;
const LOWEST_HZ = 10;
const HIGHEST_HZ = 40_000;
const FEWEST_DIRECTIONS = 12;
/** Where no direction within this is known, nothing can be said, degrees. */
const MOST_GAP_DEG = 45;

/**
 * Reads the directivity of a loudspeaker from an AES69 file of the convention FreeFieldDirectivityTF: pressures at directions about
 * it, over frequency. Turned so that its view is ahead; distances that differ are made alike by 1 / r.
 * @throws FormatError with what is wrong, and what would be right
 */
export async function readAes69(bytes: Uint8Array): Promise<ReadLoudspeaker> {
  const { file, close } = await openAes69(bytes);
  try {
    return loudspeakerOf(file);
  } finally {
    close();
  }
}

function loudspeakerOf(file: Aes69): ReadLoudspeaker {
  if (file.text('Conventions') !== 'SOFA')
    throw new FormatError(
      'This is an HDF5 file, but none of AES69: it does not say that it follows its conventions.',
    );
  const convention = file.text('SOFAConventions') || 'none';
  if (convention !== CONVENTION)
    throw new FormatError(
      `This AES69 file has the convention ${convention}; the directivity of a loudspeaker is read from ${CONVENTION}.`,
    );
  const notes: string[] = [];
  const { measured, frequency, takes } = pressuresOf(file, notes);
  const scattered = measuredAt(file, measured, frequency, takes, notes);
  const count = scattered.directions.length;
  if (count < FEWEST_DIRECTIONS)
    throw new FormatError(
      `The file has ${count} ${count === 1 ? 'direction' : 'directions'}; at least ${FEWEST_DIRECTIONS} make a balloon.`,
    );
  const shown = thinned(scattered, MOST_FREQUENCIES, 12);
  if (shown.frequency.length < frequency.length)
    notes.push(
      `Of ${frequency.length} frequencies ${shown.frequency.length} are taken for the balloon, a twelfth of an octave apart.`,
    );
  const grid = regularGrid(shown);
  if (grid) {
    const least = grid.pole === 'front' ? 0 : grid.fromPoleDeg[0]!;
    const last = grid.fromPoleDeg.at(-1)!;
    if (last < 165 || least > 15)
      notes.push('Not all directions are given: beyond the last ones what is there is held.');
  } else {
    const gap = widestGapDeg(shown.directions);
    if (gap > MOST_GAP_DEG)
      throw new FormatError(
        `The directions leave a gap: up to ${Math.round(gap)}° from the nearest. Up to ${MOST_GAP_DEG}° are bridged.`,
      );
    notes.push(`The ${count} directions lie on no grid: between them a parabola over the nearest is taken.`);
  }
  const data = grid ?? griddedBalloon(shown);
  const axisFrom = thinned(scattered, MOST_AXIS_FREQUENCIES, 48);
  const ahead = nearestAhead(axisFrom.directions);
  const axis = againstBand({
    frequency: axisFrom.frequency,
    levelDb: axisFrom.frequency.map(
      (_, n) => 20 * Math.log10(Math.hypot(axisFrom.re[n]![ahead]!, axisFrom.im[n]![ahead]!)),
    ),
  });
  const off = Math.acos(Math.min(1, axisFrom.directions[ahead]!.x));
  if (off > 0.02)
    notes.push(
      `No direction lies on the axis; its response is that of ${((off * 180) / Math.PI).toFixed(1)}° beside it.`,
    );
  if (axis.levelDb.some((v) => !Number.isFinite(v)))
    throw new FormatError(
      'There is nothing on the axis at some frequencies: the loudspeaker does not face where its view says.',
    );
  return {
    name: file.text('SourceName') || file.text('Title'),
    data: againstAxis(data),
    axis,
    sensitivityDb: null,
    largestDb: null,
    notes,
  };
}

interface Pressures {
  /** `[take * receivers + receiver][frequency]` */
  measured: { re: Float64Array; im: Float64Array };
  frequency: Float64Array;
  takes: number;
}

function pressuresOf(file: Aes69, notes: string[]): Pressures {
  const [real, imaginary, n] = [file.numbers('Data.Real'), file.numbers('Data.Imag'), file.numbers('N')];
  if (!real || !imaginary || !n)
    throw new FormatError('The file is incomplete: it lacks Data.Real, Data.Imag or its frequencies N.');
  const [takes = 0, receivers = 0, count = 0] = real.shape;
  if (
    real.shape.length !== 3 ||
    count !== n.values.length ||
    imaginary.values.length !== real.values.length ||
    takes * receivers * count !== real.values.length ||
    count === 0
  )
    throw new FormatError(
      `The file contradicts itself: pressures of ${real.shape.join(' x ')} for ${n.values.length} frequencies.`,
    );
  const bad = [real.values, imaginary.values].some((v) => v.some((x) => !Number.isFinite(x)));
  if (bad)
    throw new FormatError('The file holds pressures that are no numbers. Export it again, without gaps.');
  const kept = [...n.values.keys()].filter((k) => n.values[k]! >= LOWEST_HZ && n.values[k]! <= HIGHEST_HZ);
  if (kept.some((k, i) => i > 0 && !(n.values[k]! > n.values[kept[i - 1]!]!)))
    throw new FormatError('The frequencies of the file do not ascend.');
  if (kept.length === 0)
    throw new FormatError(
      `No frequency of the file lies within ${LOWEST_HZ} Hz and ${HIGHEST_HZ / 1000} kHz.`,
    );
  if (kept.length < count)
    notes.push(
      `${count - kept.length} of ${count} frequencies lie outside ${LOWEST_HZ} Hz to ${HIGHEST_HZ / 1000} kHz: left out.`,
    );
  const pick = (values: Float64Array) => {
    const out = new Float64Array(takes * receivers * kept.length);
    for (let d = 0; d < takes * receivers; d++)
      kept.forEach((k, i) => (out[d * kept.length + i] = values[d * count + k]!));
    return out;
  };
  return {
    measured: { re: pick(real.values), im: pick(imaginary.values) },
    frequency: Float64Array.from(kept, (k) => n.values[k]!),
    takes,
  };
}

/** Pressures by their directions as the loudspeaker sees them. */
function measuredAt(
  file: Aes69,
  { re, im }: Pressures['measured'],
  frequency: Float64Array,
  takes: number,
  notes: string[],
): Scattered {
  const count = frequency.length;
  const receivers = re.length / count / takes;
  const positions = file.points('ReceiverPosition');
  if (!positions) throw new FormatError('The file is incomplete: it lacks the positions of its receivers.');
  const [at, listener, view, up] = [
    file.points('SourcePosition') ?? [{ x: 0, y: 0, z: 0 }],
    file.points('ListenerPosition') ?? [{ x: 0, y: 0, z: 0 }],
    file.points('SourceView') ?? [{ x: 1, y: 0, z: 0 }],
    file.points('SourceUp') ?? [{ x: 0, y: 0, z: 1 }],
  ];
  const isMoved = positions.length === receivers * takes && takes > 1;
  if (!isMoved && positions.length !== receivers)
    throw new FormatError(
      `The file contradicts itself: ${positions.length} positions of receivers for ${receivers} receivers in ${takes} takes.`,
    );
  const isTurned = [at, view].some((of) => of.length === takes && takes > 1);
  const used = isMoved || isTurned ? takes : 1;
  if (used < takes) notes.push(`The file holds ${takes} takes of the same directions; the first is taken.`);
  const of = <T>(list: readonly T[], m: number): T => list[list.length === takes ? m : 0]!;
  const found: Scattered = {
    directions: [],
    frequency,
    re: Array.from({ length: count }, () => new Float64Array(used * receivers)),
    im: Array.from({ length: count }, () => new Float64Array(used * receivers)),
  };
  for (let m = 0; m < used; m++)
    for (let r = 0; r < receivers; r++) {
      const position = isMoved ? positions[r * takes + m]! : positions[r]!;
      const there = minus(plus(of(listener, m), position), of(at, m));
      const distance = lengthOf(there);
      if (!(distance > 1e-6))
        throw new FormatError('A receiver of the file stands where the loudspeaker is.');
      const frame = frameOf(of(view, m), of(up, m));
      const i = m * receivers + r;
      found.directions.push({
        x: dot(there, frame.ahead) / distance,
        y: dot(there, frame.left) / distance,
        z: dot(there, frame.up) / distance,
      });
      for (let n = 0; n < count; n++) {
        found.re[n]![i] = re[i * count + n]! * distance;
        found.im[n]![i] = im[i * count + n]! * distance;
      }
    }
  return found;
}

const plus = (a: Point, b: Point): Point => ({ x: a.x + b.x, y: a.y + b.y, z: a.z + b.z });

function frameOf(view: Point, up: Point): { ahead: Point; left: Point; up: Point } {
  const unit = (p: Point): Point => {
    const size = lengthOf(p);
    if (!(size > 1e-9)) throw new FormatError('The view of the loudspeaker points nowhere, or straight up.');
    return { x: p.x / size, y: p.y / size, z: p.z / size };
  };
  const ahead = unit(view);
  const left = unit(cross(up, ahead));
  return { ahead, left, up: cross(ahead, left) };
}

/** Of many frequencies those nearest to equal steps of an octave. */
function thinned(all: Scattered, most: number, perOctave: number): Scattered {
  const { frequency } = all;
  if (frequency.length <= most) return all;
  const [first, last] = [frequency[0]!, frequency.at(-1)!];
  const steps = Math.floor(perOctave * Math.log2(last / first));
  const kept = new Set<number>();
  for (let i = 0; i <= steps; i++) {
    const f = first * 2 ** (i / perOctave);
    const after = frequency.findIndex((v) => v >= f);
    const k = after < 0 ? frequency.length - 1 : after;
    kept.add(k > 0 && f - frequency[k - 1]! < frequency[k]! - f ? k - 1 : k);
  }
  const order = [...kept].sort((a, b) => a - b);
  const pick = <T>(list: readonly T[]) => order.map((k) => list[k]!);
  return {
    ...all,
    frequency: Float64Array.from(order, (k) => frequency[k]!),
    re: pick(all.re),
    im: pick(all.im),
  };
}

const nearestAhead = (directions: readonly Point[]): number =>
  directions.reduce((best, d, i) => (d.x > directions[best]!.x ? i : best), 0);

/** Data with 1 on the axis; what has no imaginary part anywhere is levels only. */
function againstAxis(data: BalloonData): BalloonData {
  const isReal = data.im.every((layer) => layer.every((v) => v === 0));
  const sized = isReal ? { ...data, re: data.re.map((layer) => layer.map(Math.abs)), hasPhase: false } : data;
  const axis = Array.from(data.frequency, (f, n) => {
    const { re, im } = dataGain(sized, n, 1, 0, 0);
    const power = re * re + im * im;
    if (!(power > 0)) throw new FormatError(`There is nothing on the axis at ${Math.round(f)} Hz.`);
    return { a: re / power, b: im / power };
  });
  return {
    ...sized,
    re: sized.re.map((layer, n) => layer.map((x, i) => x * axis[n]!.a + sized.im[n]![i]! * axis[n]!.b)),
    im: sized.im.map((layer, n) => layer.map((y, i) => y * axis[n]!.a - sized.re[n]![i]! * axis[n]!.b)),
  };
}
