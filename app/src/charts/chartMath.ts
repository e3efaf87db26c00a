/** The part of the chart that is on screen: Hz and dB at its edges, and where it lies in pixels. */
export interface PlotView {
  fromHz: number;
  toHz: number;
  lowDb: number;
  highDb: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

export const FULL_BAND = { fromHz: 20, toHz: 20000 } as const;

export const xOf = (v: PlotView, frequency: number): number =>
  v.x + (v.width * Math.log(frequency / v.fromHz)) / Math.log(v.toHz / v.fromHz);
export const yOf = (v: PlotView, levelDb: number): number =>
  v.y + (v.height * (v.highDb - levelDb)) / (v.highDb - v.lowDb);
export const frequencyAt = (v: PlotView, x: number): number =>
  v.fromHz * (v.toHz / v.fromHz) ** ((x - v.x) / v.width);
export const levelAt = (v: PlotView, y: number): number =>
  v.highDb - ((y - v.y) / v.height) * (v.highDb - v.lowDb);

/** Grid lines at every 1 to 9 of a decade within a band; labels belong to 1, 2 and 5. */
export function frequencyTicks(fromHz: number, toHz: number): { lines: number[]; labels: number[] } {
  const lines: number[] = [];
  for (let decade = 10 ** Math.floor(Math.log10(fromHz)); decade <= toHz; decade *= 10) {
    for (let n = 1; n <= 9; n++) {
      const f = Math.round(n * decade * 1000) / 1000;
      if (f >= fromHz * 0.9999 && f <= toHz * 1.0001) lines.push(f);
    }
  }
  const preferred = lines.filter((f) => [1, 2, 5].includes(leadingDigit(f)));
  // zoomed in to less than two labels, every line gets one
  return { lines, labels: preferred.length >= 2 ? preferred : lines };
}

const leadingDigit = (f: number) => Math.round(f / 10 ** Math.floor(Math.log10(f) + 1e-9));

/** Ticks of a level axis: steps of 1, 2 or 5 (and their tenths and tens), at most nine of them. */
export function levelTicks(lowDb: number, highDb: number): number[] {
  const step = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50].find((s) => (highDb - lowDb) / s <= 9) ?? 100;
  const ticks: number[] = [];
  for (let i = Math.ceil(lowDb / step - 1e-9); i * step <= highDb + 1e-9; i++)
    ticks.push(Number((i * step).toFixed(1)));
  return ticks;
}

/** "63 Hz", "1.25 kHz": three figures. */
export function formatHz(frequency: number): string {
  if (!Number.isFinite(frequency)) return '–';
  if (frequency >= 999.5) return `${trim(frequency / 1000)} kHz`;
  return `${trim(frequency)} Hz`;
}
const trim = (v: number) => String(Number(v.toPrecision(3)));

/** Axis label: "50", "1k", "2k". */
export const axisHz = (frequency: number): string =>
  frequency >= 1000 ? `${frequency / 1000}k` : String(frequency);

/** "+3.2 dB", with a true minus sign; "–" for what is no number. */
export const formatDb = (levelDb: number, digits = 1): string =>
  Number.isFinite(levelDb) ? `${signedDb(levelDb, digits)} dB` : '–';

/** The same without its unit, for columns and ranges that name it once. */
export function signedDb(levelDb: number, digits = 1): string {
  if (!Number.isFinite(levelDb)) return '–';
  const rounded = Number(levelDb.toFixed(digits));
  const text = Math.abs(rounded).toFixed(digits);
  return `${rounded > 0 ? '+' : rounded < 0 ? '\u2212' : ''}${text}`;
}

/** Index of the point nearest to a frequency (over log frequency). */
export function nearestIndex(frequency: Float64Array, wanted: number): number {
  let [low, high] = [0, frequency.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (frequency[middle]! <= wanted) low = middle;
    else high = middle;
  }
  return Math.abs(Math.log(frequency[low]! / wanted)) <= Math.abs(Math.log(frequency[high]! / wanted))
    ? low
    : high;
}

/**
 * Level range that shows curves: whole 5 dB around all finite values within a band, at least 30 dB and at most `most`;
 * when it must cut, it keeps the top.
 */
export function levelRange(
  frequency: Float64Array,
  curves: Float64Array[],
  band = FULL_BAND as { fromHz: number; toHz: number },
  most = 60,
) {
  let [low, high] = [Infinity, -Infinity];
  for (const curve of curves) {
    curve.forEach((v, i) => {
      if (!Number.isFinite(v) || frequency[i]! < band.fromHz || frequency[i]! > band.toHz) return;
      low = Math.min(low, v);
      high = Math.max(high, v);
    });
  }
  if (low > high) return { lowDb: -30, highDb: 0 };
  const highDb = Math.ceil((high + 2) / 5) * 5;
  const lowDb = Math.max(Math.floor((low - 1) / 5) * 5, highDb - most);
  return { lowDb: Math.min(lowDb, highDb - 30), highDb };
}

/** A zoomed band around a frequency, `factor` below 1 zooms in; kept within the full band and wider than a sixth of an octave. */
export function zoomed(band: { fromHz: number; toHz: number }, around: number, factor: number) {
  const [from, to] = [Math.log(band.fromHz), Math.log(band.toHz)];
  const width = Math.max(
    Math.LN2 / 6,
    Math.min((to - from) * factor, Math.log(FULL_BAND.toHz / FULL_BAND.fromHz)),
  );
  const share = (Math.log(around) - from) / (to - from);
  let start = Math.log(around) - share * width;
  start = Math.max(Math.log(FULL_BAND.fromHz), Math.min(start, Math.log(FULL_BAND.toHz) - width));
  return { fromHz: Math.exp(start), toHz: Math.exp(start + width) };
}

/** Steps of 1, 2 or 5 that give at most ten ticks. */
export function ticksOf(from: number, to: number): number[] {
  const step =
    [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200].find((s) => (to - from) / s <= 10) ??
    500;
  const ticks: number[] = [];
  for (let i = Math.ceil(from / step); i * step <= to; i++) ticks.push(Number((i * step).toFixed(3)));
  return ticks;
}
