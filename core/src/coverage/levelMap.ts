import QuickLRU from 'quick-lru';
import { axisTrace, radiationLayer, type Layer, type RadiatingModel } from '../directivity/index.js';
import type { Axes, Point } from '../geometry/index.js';
import { weightingDb } from '../level/index.js';
import { needLevels, needWithin } from '../limits/index.js';
import { pathTrace, type SignalPath } from '../path/index.js';
import type { Air } from '../room/index.js';
import { multiplyTraces, type ComplexTrace } from '../signal/index.js';
import { bandPlan, THIRDS } from './bands.js';
import {
  fieldPower,
  fieldPowerInSteps,
  fieldPressure,
  firstArrivalS,
  type FieldSource,
  type Ground,
  type SourceField,
} from './field.js';

/** A box of a channel: where, how it is turned, what it gets on top of the channel. */
export interface PlacedBox {
  position: Point;
  axes: Axes;
  delayMs: number;
  inverted: boolean;
}

/** A channel in the map: its boxes of one model, and what the signal goes through on its way to them. */
export interface ChannelOf<Model> {
  id: string;
  model: Model;
  boxes: PlacedBox[];
  path: SignalPath;
  /** what a filter does at the frequencies of the map, `mapFrequencies`; none when absent */
  filter?: { re: Float64Array; im: Float64Array } | null;
}

export type CoverageChannel = ChannelOf<RadiatingModel>;

/** What is looked at: one frequency, a third of an octave, an octave, or all of it as A-weighted. */
export type MapBand = { kind: 'frequency' | 'third' | 'octave'; centre: number } | { kind: 'A' };

export interface LevelMapRequest {
  channels: CoverageChannel[];
  /** x, y, z of each point, metres */
  points: Float64Array;
  band: MapBand;
  how: 'coherent' | 'power';
  /** level of the signal, dB re full scale (a sine of full scale has 0): a sine for one frequency, else pink noise from 20 Hz to 20 kHz */
  signalDbfs: number;
  /** m/s */
  speed: number;
  air: Air | null;
  ground: Ground | null;
  /** at how many frequencies each third is worked out; 5 when absent, fewer for a first look */
  perThird?: number;
}

/** A third of an octave is worked out at so many frequencies. */
const PER_THIRD = 5;
/** Thirds in pink noise of ten octaves. */
const ALL_THIRDS = 30;

/** Radiation of models by frequency, as worked out before. */
const layers = new QuickLRU<string, Layer>({ maxSize: 900 });

/** Data are told apart by what they are, not by what is in them: they are large. */
const numbered = new WeakMap<object, number>();
let dataSoFar = 0;

function layer({ radiation }: RadiatingModel, frequency: number, speed: number): Layer {
  if (radiation.kind === 'data' && !numbered.has(radiation.data)) numbered.set(radiation.data, ++dataSoFar);
  const key =
    radiation.kind === 'data'
      ? `data ${numbered.get(radiation.data)} ${frequency}`
      : `${frequency} ${speed} ${JSON.stringify(radiation.ways)}`;
  const known = layers.get(key);
  if (known) return known;
  const made = radiationLayer(radiation, frequency, speed);
  layers.set(key, made);
  return made;
}

/** Frequencies of a band; each with the frequency whose radiation it takes, its share of the signal's power, and its weight. */
function linesOf(
  band: MapBand,
  perThird = PER_THIRD,
): { frequency: number; layerAt: number; share: number }[] {
  if (band.kind === 'frequency') return [{ frequency: band.centre, layerAt: band.centre, share: 1 }];
  const thirds =
    band.kind === 'A'
      ? THIRDS
      : band.kind === 'third'
        ? [band.centre]
        : [-1, 0, 1].map((n) => band.centre * 10 ** (n / 10));
  return thirds.flatMap((centre) => {
    const weight = band.kind === 'A' ? 10 ** (weightingDb('A', centre) / 10) : 1;
    return [...bandPlan(centre, 1 / 3, perThird).frequencies].map((frequency) => ({
      frequency,
      layerAt: centre,
      share: weight / (ALL_THIRDS * perThird),
    }));
  });
}

/** Frequencies at which a band is worked out, Hz. */
export const mapFrequencies = (band: MapBand, perThird?: number): Float64Array =>
  Float64Array.from(linesOf(band, perThird), (l) => l.frequency);

/**
 * Level of direct sound at points.
 * @returns dB SPL, -Infinity where nothing sounds
 * @throws RangeError for values that mean nothing
 */
export function levelMap(request: LevelMapRequest): Float64Array {
  const steps = levelMapInSteps(request);
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}

/** The same, box by box: yields the share that is done. */
export function* levelMapInSteps(request: LevelMapRequest): Generator<number, Float64Array> {
  const { channels, points, band, how, signalDbfs, speed, air, ground, perThird } = request;
  needLevels('levelMap', 'level of the signal', [signalDbfs]);
  if (band.kind !== 'A') needWithin('levelMap', 'frequency in Hz', band.centre, 10, 40_000);
  if (perThird !== undefined) needWithin('levelMap', 'frequencies in a third', perThird, 1, 100);
  const lines = linesOf(band, perThird);
  const frequencies = Float64Array.from(lines, (l) => l.frequency);
  const sources = channels.flatMap((channel) => sourcesOf(channel, lines, frequencies, speed));
  const powers = yield* fieldPowerInSteps({ sources, points, frequencies, speed, air, ground }, how);
  const sum = new Float64Array(points.length / 3);
  powers.forEach((power, n) => {
    const by = lines[n]!.share * 10 ** (signalDbfs / 10);
    for (let p = 0; p < sum.length; p++) sum[p]! += by * power[p]!;
  });
  return sum.map((v) => 10 * Math.log10(v));
}

/**
 * Level of direct sound at one point over frequency, for a sine of the signal's level at each.
 * @param frequency Hz; a filter of a channel is given at these
 * @returns dB SPL at each, -Infinity where nothing sounds
 */
export function responseAtPoint(
  { channels, how, signalDbfs, speed, air, ground }: Omit<LevelMapRequest, 'points' | 'band' | 'perThird'>,
  point: Point,
  frequency: Float64Array,
): Float64Array {
  needLevels('responseAtPoint', 'level of the signal', [signalDbfs]);
  const lines = nearestLayers(frequency);
  const sources = channels.flatMap((channel) => sourcesOf(channel, lines, frequency, speed));
  const points = Float64Array.of(point.x, point.y, point.z);
  const powers = fieldPower({ sources, points, frequencies: frequency, speed, air, ground }, how);
  return Float64Array.from(powers, (p) => 10 * Math.log10(p[0]!) + signalDbfs);
}

/** Radiation changes little within a third: each frequency takes that of the nearest one. */
const nearestLayers = (frequency: Float64Array): { layerAt: number }[] =>
  Array.from(frequency, (f) => ({
    layerAt: THIRDS.reduce((a, b) => (Math.abs(Math.log(b / f)) < Math.abs(Math.log(a / f)) ? b : a)),
  }));

/**
 * Direct sound of some channels together, with its phase and all of the way in it.
 * @param points x, y, z of each, metres
 * @param frequency Hz
 * @returns in units of 20 micropascals, for a sine of full scale at each frequency; 0 where nothing sounds
 */
export const pressureAtPoints = (
  channels: readonly CoverageChannel[],
  { speed, air, ground }: Pick<LevelMapRequest, 'speed' | 'air' | 'ground'>,
  points: Float64Array,
  frequency: Float64Array,
): SourceField => {
  const lines = nearestLayers(frequency);
  const sources = channels.flatMap((channel) => sourcesOf(channel, lines, frequency, speed));
  return fieldPressure({ sources, points, frequencies: frequency, speed, air, ground });
};

/** Boxes of a channel with their pressure on axis at 1 m, in units of 20 micropascals, for a sine of full scale. */
function sourcesOf(
  { model, boxes, path, filter }: CoverageChannel,
  lines: readonly { layerAt: number }[],
  frequencies: Float64Array,
  speed: number,
): FieldSource[] {
  const own = axisTrace(model.axis, frequencies);
  const through = withFilter(pathTrace(path, frequencies), filter ?? null);
  const gain = 10 ** (model.largestDb / 20);
  const shared = lines.map((l) => layer(model, l.layerAt, speed));
  return boxes.map(({ position, axes, delayMs, inverted }) => {
    const re = new Float64Array(frequencies.length);
    const im = new Float64Array(frequencies.length);
    frequencies.forEach((f, n) => {
      const [a, b] = [
        own.re[n]! * through.re[n]! - own.im[n]! * through.im[n]!,
        own.re[n]! * through.im[n]! + own.im[n]! * through.re[n]!,
      ];
      const turn = (-2 * Math.PI * f * delayMs) / 1000;
      const size = inverted ? -gain : gain;
      const [c, s] = [size * Math.cos(turn), size * Math.sin(turn)];
      re[n] = a * c - b * s;
      im[n] = a * s + b * c;
    });
    return { position, axes, re, im, layers: shared };
  });
}

/** A trace behind a filter. @throws RangeError for a filter at other frequencies */
function withFilter(
  trace: ComplexTrace,
  filter: { re: Float64Array; im: Float64Array } | null,
): ComplexTrace {
  if (!filter) return trace;
  if (filter.re.length !== trace.re.length)
    throw new RangeError(`levelMap: a filter at ${filter.re.length} frequencies for ${trace.re.length}`);
  return multiplyTraces(trace, { ...filter, frequency: trace.frequency });
}

/** Seconds after which the first box of some channels is heard at each point, their delays with it. */
export function arrivalMap(
  channels: readonly Pick<CoverageChannel, 'boxes' | 'path'>[],
  points: Float64Array,
  speed: number,
): Float64Array {
  const boxes = channels.flatMap(({ boxes: own, path }) =>
    own.map(({ position, delayMs }) => ({ position, delayS: path.delayS + delayMs / 1000 })),
  );
  return Float64Array.from({ length: points.length / 3 }, (_, p) =>
    firstArrivalS(boxes, { x: points[3 * p]!, y: points[3 * p + 1]!, z: points[3 * p + 2]! }, speed),
  );
}
