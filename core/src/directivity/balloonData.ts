import { needAscending, needFinite, needWithin } from '../limits/index.js';
import { ANGLE_STEP_DEG, ANGLES, STEPS_ABOUT, type Layer } from './balloon.js';

/**
 * Radiation of a loudspeaker as it was measured, or given: complex, far away, against that on its axis, as heard from the point
 * that it is placed by. Directions lie on a grid about a pole, which is its axis, or what is above it.
 */
export interface BalloonData {
  pole: 'front' | 'up';
  /** degrees from the pole, ascending, within 0 to 180 */
  fromPoleDeg: Float64Array;
  /** degrees about the pole, ascending, from 0, below 360: of `front` from its left over its upper side, of `up` from its axis to its left */
  aboutDeg: Float64Array;
  /** Hz, ascending */
  frequency: Float64Array;
  /** `[frequency][row * abouts + about]`, a row for each angle from the pole */
  re: Float32Array[];
  im: Float32Array[];
  /** false where levels alone are known: then all is taken as heard from the one point */
  hasPhase: boolean;
}

/** Between directions farther apart than this about the axis nobody knows: one passes into the other. */
const COARSE_ABOUT_DEG = 60;

/** @throws RangeError for data that are no balloon */
export function needBalloonData(data: BalloonData): void {
  const { fromPoleDeg, aboutDeg, frequency, re, im } = data;
  needAscending('balloon', 'frequencies', frequency, 0);
  needAscending(
    'balloon',
    'angles from the pole',
    fromPoleDeg.map((v) => v + 1),
    0,
  );
  needAscending(
    'balloon',
    'angles about the pole',
    aboutDeg.map((v) => v + 1),
    0,
  );
  needWithin('balloon', 'number of frequencies', frequency.length, 1, 2000);
  needWithin('balloon', 'number of angles from the pole', fromPoleDeg.length, 2, 721);
  needWithin('balloon', 'number of angles about the pole', aboutDeg.length, 1, 1440);
  const cells = fromPoleDeg.length * aboutDeg.length;
  if ([re, im].some((of) => of.length !== frequency.length || of.some((layer) => layer.length !== cells)))
    throw new RangeError(`balloon: not ${cells} directions at each of ${frequency.length} frequencies`);
  for (const of of [re, im]) for (const layer of of) needFinite('balloon', 'pressure', layer);
}

/** Half a third of an octave: a band that is given by its middle reaches as far. */
export const BAND_EDGE = 0.125;

/** Whether data tell of a frequency, Hz: no farther than the band of the last one. */
export const isWithinData = ({ frequency }: Pick<BalloonData, 'frequency'>, f: number): boolean =>
  f >= frequency[0]! * (1 - BAND_EDGE) && f <= frequency.at(-1)! * (1 + BAND_EDGE);

/**
 * A layer from data, between their directions and frequencies.
 *
 * Pressures are interpolated as complex ones by a cubic through four neighbours, after what their phase turns from one to the next
 * was taken out: so neither a null, where the sign changes, nor a loudspeaker that is placed away from its acoustic centre is blurred.
 * Beyond the lowest and highest frequency, and beyond the last angle, the nearest one is held.
 * @param frequency Hz
 */
export function layerOfData(data: BalloonData, frequency: number): Layer {
  needWithin('layerOfData', 'frequency in Hz', frequency, 1, 200_000);
  const abouts = aboutsOf(data);
  const [low, high, t] = between(data.frequency, frequency);
  const layer: Layer = {
    frequency,
    abouts,
    re: new Float32Array(ANGLES * abouts),
    im: new Float32Array(ANGLES * abouts),
  };
  const direction = { row: 0, turn: 0 };
  const [a, b] = [new Float64Array(2), new Float64Array(2)];
  const at = new Reader(data);
  for (let i = 0; i < ANGLES; i++)
    for (let j = 0; j < abouts; j++) {
      direct(data.pole, (i * ANGLE_STEP_DEG * Math.PI) / 180, (j * 2 * Math.PI) / abouts, direction);
      at.read(low, direction.row, direction.turn, a);
      if (t > 0) {
        at.read(high, direction.row, direction.turn, b);
        blend(a, b, t);
      }
      layer.re[i * abouts + j] = a[0]!;
      layer.im[i * abouts + j] = a[1]!;
    }
  return againstAxis(layer);
}

/** Radiation in a direction by its parts along the axes of a loudspeaker, straight from the data. */
export function dataGain(data: BalloonData, nth: number, ahead: number, left: number, up: number) {
  const direction = { row: 0, turn: 0 };
  direct(data.pole, Math.acos(Math.max(-1, Math.min(1, ahead))), Math.atan2(up, left), direction);
  const out = new Float64Array(2);
  new Reader(data).read(nth, direction.row, direction.turn, out);
  return { re: out[0]!, im: out[1]! };
}

/** Twice as fine about the axis as the data are, so that a cubic through four of its steps holds them. */
function aboutsOf({ pole, aboutDeg }: BalloonData): number {
  if (pole === 'front' && aboutDeg.length === 1) return 4;
  const spacing = Math.max(3, 360 / aboutDeg.length);
  return STEPS_ABOUT.find((n) => 360 / n <= spacing / 2) ?? STEPS_ABOUT.at(-1)!;
}

/** Degrees from the pole and about it of a direction that is given from the axis and about it, radians. */
function direct(
  pole: BalloonData['pole'],
  angle: number,
  about: number,
  out: { row: number; turn: number },
): void {
  const DEG = 180 / Math.PI;
  let turn: number;
  if (pole === 'front') {
    out.row = angle * DEG;
    turn = about * DEG;
  } else {
    const [ahead, side] = [Math.cos(angle), Math.sin(angle)];
    out.row = Math.acos(Math.max(-1, Math.min(1, side * Math.sin(about)))) * DEG;
    turn = Math.atan2(side * Math.cos(about), ahead) * DEG;
  }
  out.turn = turn < 0 ? turn + 360 : turn;
}

/** Places before and after a value in an ascending list, and how far it is from the one to the other by its logarithm. */
function between(list: Float64Array, value: number): [number, number, number] {
  const last = list.length - 1;
  if (value <= list[0]!) return [0, 0, 0];
  if (value >= list[last]!) return [last, last, 0];
  let high = 1;
  while (list[high]! < value) high++;
  const t = Math.log(value / list[high - 1]!) / Math.log(list[high]! / list[high - 1]!);
  return t > 1 - 1e-9 ? [high, high, 0] : [high - 1, high, t];
}

/** From one pressure to another by size and by the shorter way of its phase. */
function blend(a: Float64Array, b: Float64Array, t: number): void {
  const size = (1 - t) * Math.hypot(a[0]!, a[1]!) + t * Math.hypot(b[0]!, b[1]!);
  const turn = Math.atan2(b[1]! * a[0]! - b[0]! * a[1]!, b[0]! * a[0]! + b[1]! * a[1]!);
  const phase = Math.atan2(a[1]!, a[0]!) + t * turn;
  a[0] = size * Math.cos(phase);
  a[1] = size * Math.sin(phase);
}

/** Reads data between their directions; without lists of its own, as it runs for each direction of a layer. */
class Reader {
  private readonly x = new Float64Array(4);
  private readonly re = new Float64Array(4);
  private readonly im = new Float64Array(4);
  private readonly rowX = new Float64Array(4);
  private readonly rowRe = new Float64Array(4);
  private readonly rowIm = new Float64Array(4);
  private readonly one = new Float64Array(2);
  private readonly other = new Float64Array(2);

  constructor(private readonly data: BalloonData) {}

  /** @param row degrees from the pole @param turn degrees about it, 0 to 360 */
  read(nth: number, row: number, turn: number, out: Float64Array): void {
    const { fromPoleDeg: rows } = this.data;
    const last = rows.length - 1;
    const held = Math.max(rows[0]!, Math.min(rows[last]!, row));
    let i = 1;
    while (i < last && rows[i]! < held) i++;
    for (let k = 0; k < 4; k++) this.readRow(nth, i - 2 + k, turn, k);
    cubic(this.rowX, this.rowRe, this.rowIm, held, this.data.hasPhase, out);
  }

  /** A row at a place about the pole; beyond a pole one comes down on the other side. */
  private readRow(nth: number, i: number, turn: number, k: number): void {
    const { fromPoleDeg: rows } = this.data;
    const last = rows.length - 1;
    let [row, at, angle] = [i, turn, rows[Math.max(0, Math.min(last, i))]!];
    if (i < 0 && rows[0] === 0) [row, at, angle] = [-i, turn + 180, -rows[Math.min(last, -i)]!];
    else if (i > last && rows[last] === 180) {
      row = 2 * last - i;
      [at, angle] = [turn + 180, 360 - rows[Math.max(0, row)]!];
    } else if (i < 0 || i > last) {
      // the edge is held: as if one more row like it lay beyond
      row = Math.max(0, Math.min(last, i));
      angle += i < 0 ? i : i - last;
    }
    this.readAbout(nth, Math.max(0, Math.min(last, row)), at >= 360 ? at - 360 : at);
    this.rowX[k] = angle;
    this.rowRe[k] = this.one[0]!;
    this.rowIm[k] = this.one[1]!;
  }

  private readAbout(nth: number, row: number, turn: number): void {
    const { aboutDeg, hasPhase } = this.data;
    const n = aboutDeg.length;
    const [re, im] = [this.data.re[nth]!, this.data.im[nth]!];
    const from = row * n;
    if (n === 1) {
      this.one[0] = re[from]!;
      this.one[1] = im[from]!;
      return;
    }
    // the last one that is not beyond it; before the first lies the last of all
    let j = n - 1;
    for (let m = 0; m < n && aboutDeg[m]! <= turn; m++) j = m;
    const isBefore = turn < aboutDeg[0]!;
    const start = isBefore ? -1 : j;
    const angleOf = (m: number) => aboutDeg[((m % n) + n) % n]! + 360 * Math.floor(m / n);
    const gap = angleOf(start + 1) - angleOf(start);
    if (gap >= COARSE_ABOUT_DEG) {
      const [p, q] = [from + ((start + n) % n), from + ((start + 1) % n)];
      this.one[0] = re[p]!;
      this.one[1] = im[p]!;
      // from plane to plane by the square of the sine, as of two planes that lie across each other
      const share = Math.sin((Math.PI / 2) * ((turn - angleOf(start)) / gap)) ** 2;
      this.other[0] = re[q]!;
      this.other[1] = im[q]!;
      blend(this.one, this.other, share);
      return;
    }
    for (let k = 0; k < 4; k++) {
      const m = start - 1 + k;
      const place = from + (((m % n) + n) % n);
      this.x[k] = angleOf(m);
      this.re[k] = re[place]!;
      this.im[k] = im[place]!;
    }
    cubic(this.x, this.re, this.im, turn, hasPhase, this.one);
  }
}

/**
 * A cubic through the middle two of four complex values, with slopes of the parabolas through three neighbours each; first each is
 * turned back by what the phase turns on the mean from place to place, weighted by the sizes there.
 */
function cubic(
  x: Float64Array,
  re: Float64Array,
  im: Float64Array,
  at: number,
  hasPhase: boolean,
  out: Float64Array,
): void {
  let rate = 0;
  if (hasPhase) {
    let [turned, over] = [0, 0];
    for (let k = 0; k < 3; k++) {
      const [a, b, c, d] = [re[k]!, im[k]!, re[k + 1]!, im[k + 1]!];
      const [p, q] = [c * a + d * b, d * a - c * b];
      const weight = Math.hypot(p, q);
      turned += weight * Math.atan2(q, p);
      over += weight * (x[k + 1]! - x[k]!);
    }
    rate = over > 0 ? turned / over : 0;
  }
  if (rate !== 0)
    for (let k = 0; k < 4; k++) {
      const phase = -rate * (x[k]! - at);
      const [c, s, a, b] = [Math.cos(phase), Math.sin(phase), re[k]!, im[k]!];
      re[k] = a * c - b * s;
      im[k] = a * s + b * c;
    }
  out[0] = hermite(x, re, at);
  out[1] = hermite(x, im, at);
}

function hermite(x: Float64Array, y: Float64Array, at: number): number {
  const [x0, x1, x2, x3] = [x[0]!, x[1]!, x[2]!, x[3]!];
  const [y0, y1, y2, y3] = [y[0]!, y[1]!, y[2]!, y[3]!];
  const h = x2 - x1;
  if (h <= 0) return y1;
  const slope = (y2 - y1) / h;
  const before = x1 > x0 ? (h * ((y1 - y0) / (x1 - x0)) + (x1 - x0) * slope) / (h + x1 - x0) : slope;
  const after = x3 > x2 ? (h * ((y3 - y2) / (x3 - x2)) + (x3 - x2) * slope) / (h + x3 - x2) : slope;
  const t = (at - x1) / h;
  const t2 = t * t;
  const t3 = t2 * t;
  return (
    (2 * t3 - 3 * t2 + 1) * y1 +
    (t3 - 2 * t2 + t) * h * before +
    (3 * t2 - 2 * t3) * y2 +
    (t3 - t2) * h * after
  );
}

/** The same with 1 on the axis. */
function againstAxis(layer: Layer): Layer {
  const { re, im } = layer;
  const [a, b] = [re[0]!, im[0]!];
  const power = a * a + b * b;
  if (!(power > 1e-12))
    throw new RangeError(`layerOfData: there is nothing on the axis at ${layer.frequency} Hz`);
  for (let n = 0; n < re.length; n++) {
    const [x, y] = [re[n]!, im[n]!];
    re[n] = (x * a + y * b) / power;
    im[n] = (y * a - x * b) / power;
  }
  return layer;
}
