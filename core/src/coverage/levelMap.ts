import QuickLRU from 'quick-lru';
import { axisTrace, radiationLayer, type Layer, type RadiatingModel } from '../directivity/index.js';
import type { Axes, Point } from '../geometry/index.js';
import { weightingDb } from '../level/index.js';
import { needLevels, needWithin } from '../limits/index.js';
import { pathTrace, type SignalPath } from '../path/index.js';
import type { Air } from '../room/index.js';
import { bandPlan, THIRDS } from './bands.js';
import { fieldPower, firstArrivalS, type FieldSource, type Ground } from './field.js';

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
function linesOf(band: MapBand): { frequency: number; layerAt: number; share: number }[] {
  if (band.kind === 'frequency') return [{ frequency: band.centre, layerAt: band.centre, share: 1 }];
  const thirds =
    band.kind === 'A'
      ? THIRDS
      : band.kind === 'third'
        ? [band.centre]
        : [-1, 0, 1].map((n) => band.centre * 10 ** (n / 10));
  return thirds.flatMap((centre) => {
    const weight = band.kind === 'A' ? 10 ** (weightingDb('A', centre) / 10) : 1;
    return [...bandPlan(centre, 1 / 3, PER_THIRD).frequencies].map((frequency) => ({
      frequency,
      layerAt: centre,
      share: weight / (ALL_THIRDS * PER_THIRD),
    }));
  });
}

/**
 * Level of direct sound at points.
 * @returns dB SPL, -Infinity where nothing sounds
 * @throws RangeError for values that mean nothing
 */
export function levelMap(request: LevelMapRequest): Float64Array {
  const { channels, points, band, how, signalDbfs, speed, air, ground } = request;
  needLevels('levelMap', 'level of the signal', [signalDbfs]);
  if (band.kind !== 'A') needWithin('levelMap', 'frequency in Hz', band.centre, 10, 40_000);
  const lines = linesOf(band);
  const frequencies = Float64Array.from(lines, (l) => l.frequency);
  const sources = channels.flatMap((channel) => sourcesOf(channel, lines, frequencies, speed));
  const powers = fieldPower({ sources, points, frequencies, speed, air, ground }, how);
  const sum = new Float64Array(points.length / 3);
  powers.forEach((power, n) => {
    const by = lines[n]!.share * 10 ** (signalDbfs / 10);
    for (let p = 0; p < sum.length; p++) sum[p]! += by * power[p]!;
  });
  return sum.map((v) => 10 * Math.log10(v));
}

/** Boxes of a channel with their pressure on axis at 1 m, in units of 20 micropascals, for a sine of full scale. */
function sourcesOf(
  { model, boxes, path }: CoverageChannel,
  lines: readonly { layerAt: number }[],
  frequencies: Float64Array,
  speed: number,
): FieldSource[] {
  const own = axisTrace(model.axis, frequencies);
  const through = pathTrace(path, frequencies);
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
