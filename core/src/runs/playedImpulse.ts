import { distanceBetween, dot, meanPoint, minus, type Point } from '../geometry/index.js';
import { addImpulse, joinOctaves, OCTAVES, speedOfSound, type Air, type Lows } from '../room/index.js';
import { cosineStep, inverseRealFft, realFft, type ComplexTrace } from '../signal/index.js';
import {
  EMISSION_COLUMNS,
  EMISSION_ROWS,
  emissionDirections,
  emissionInto,
  heardAt,
  mirroredArrivals,
  traceRays,
  type DirectionEnergies,
  type Heard,
  type RayGroup,
  type Scene,
  type TracedFace,
  type TracedSource,
} from '../tracing/index.js';
import { fieldPulses } from './fieldPulses.js';
import { smoothDecay } from './smoothDecay.js';

/** A room in which something is played. */
export interface PlayedRoom {
  faces: readonly TracedFace[];
  scene: Scene;
  /** cubic metres; null in the open, where nothing but mirrored ways is heard */
  volume: number | null;
  air: Air;
  /** order of mirrored ways, see `RoomRun` */
  mirrored: number;
}

/** One of the boxes that play together. */
export interface PlayedBox {
  position: Point;
  /** energy per octave into a direction, against that on its axis */
  emission: DirectionEnergies;
  delayS: number;
  /** below 0 where it is turned over */
  gain: number;
}

/** What rays brought to a receiver, and from whom. */
export interface PlayedRays {
  sources: (TracedSource & { delayS: number })[];
  group: RayGroup;
}

/** Frequencies in an octave, to tell what boxes send together. */
const PER_OCTAVE = 5;
/** What counts as lateral is not asked of the impulse response at one microphone. */
const LATERAL: Point = { x: 0, y: 1, z: 0 };

/** What boxes send together far away, from their middle, and when the first of them plays. */
export function sentTogether(boxes: readonly PlayedBox[], speed: number): TracedSource & { delayS: number } {
  const [first] = boxes;
  if (!first) throw new RangeError('sentTogether: there is no box');
  if (boxes.length === 1) return { position: first.position, emission: first.emission, delayS: first.delayS };
  const position = meanPoint(boxes.map((b) => b.position));
  const directions = emissionDirections();
  const table = new Float64Array(EMISSION_ROWS * EMISSION_COLUMNS * OCTAVES.length);
  const own = new Float64Array(OCTAVES.length);
  const [re, im] = [
    new Float64Array(OCTAVES.length * PER_OCTAVE),
    new Float64Array(OCTAVES.length * PER_OCTAVE),
  ];
  const frequencies = OCTAVES.map((centre) =>
    Array.from({ length: PER_OCTAVE }, (_, i) => centre * 2 ** ((i + 0.5) / PER_OCTAVE - 0.5)),
  );
  for (let d = 0; d < EMISSION_ROWS * EMISSION_COLUMNS; d++) {
    const to = { x: directions[3 * d]!, y: directions[3 * d + 1]!, z: directions[3 * d + 2]! };
    re.fill(0);
    im.fill(0);
    for (const { position: at, emission, delayS, gain } of boxes) {
      emission(to.x, to.y, to.z, own);
      const lateS = delayS - dot(minus(at, position), to) / speed;
      frequencies.forEach((octave, o) => {
        const pressure = gain * Math.sqrt(own[o]!);
        octave.forEach((hz, i) => {
          const turn = 2 * Math.PI * hz * lateS;
          const k = o * PER_OCTAVE + i;
          re[k] = re[k]! + pressure * Math.cos(turn);
          im[k] = im[k]! - pressure * Math.sin(turn);
        });
      });
    }
    for (let k = 0; k < re.length; k++) {
      const cell = d * OCTAVES.length + Math.floor(k / PER_OCTAVE);
      table[cell] = table[cell]! + (re[k]! ** 2 + im[k]! ** 2) / PER_OCTAVE;
    }
  }
  return { position, emission: emissionInto(table), delayS: Math.min(...boxes.map((b) => b.delayS)) };
}

/**
 * What rays bring to a receiver from several channels at once: sent from the receiver, as sound takes a way alike in both directions.
 * @param channels boxes that play together, of each @param lengthS of what is heard after the direct sound
 */
export function playedRays(
  { scene, mirrored, air }: PlayedRoom,
  channels: readonly (readonly PlayedBox[])[],
  receiver: Point,
  { rays, lengthS, seed }: { rays: number; lengthS: number; seed: number },
): PlayedRays {
  const speed = speedOfSound(air.temperatureC);
  const sources = channels.map((boxes) => sentTogether(boxes, speed));
  const group = traceRays(scene, {
    source: { position: receiver, emission: null },
    receivers: sources.map(({ position, emission }) => ({
      position,
      lateral: LATERAL,
      ...(emission ? { takes: emission } : {}),
    })),
    rays,
    lengthS,
    mirrored,
    speed,
    seed,
    group: 0,
    isThin: true,
  });
  return { sources, group };
}

const middleOf = ({ least, most }: Scene): Point => meanPoint([least, most]);

/** Energies of each octave without the lumps of few rays. */
const evenly = (heard: Heard): Heard => {
  const { bins } = heard;
  const energy = new Float64Array(heard.energy.length);
  OCTAVES.forEach((_, o) =>
    energy.set(smoothDecay(heard.energy.subarray(o * bins, (o + 1) * bins)), o * bins),
  );
  return { ...heard, energy };
};

/** A response is over by here, as a share of its transform. */
const END = { from: 0.9, to: 0.94 };

/**
 * Impulse response from boxes that play together to an omnidirectional receiver: mirrored ways as pulses where they arrive, box by box;
 * what rays brought as pulses at random; below, what waves bring.
 * @param rays null in the open @param onAxis what a box plays on its axis at 1 m, in the bins of a transform of `size`
 * @returns `size` samples; the first is the moment of the drive
 */
export function playedImpulse(
  room: PlayedRoom,
  boxes: readonly PlayedBox[],
  receiver: Point,
  rays: { from: PlayedRays; channel: number } | null,
  {
    rate,
    size,
    seed,
    onAxis,
    lows,
  }: { rate: number; size: number; seed: number; onAxis: ComplexTrace; lows: Lows | null },
): Float64Array {
  const { faces, scene, mirrored, air, volume } = room;
  const speed = speedOfSound(air.temperatureC);
  const bands = OCTAVES.map(() => new Float64Array(size));
  const gains = new Float64Array(OCTAVES.length);
  const request = { faces, receiver: { position: receiver, lateral: LATERAL }, mirrored, air };
  for (const { position, emission, delayS, gain } of boxes) {
    const lengthS = size / rate - delayS - distanceBetween(position, receiver) / speed;
    if (!(lengthS > 0)) continue;
    for (const { distance, energy } of mirroredArrivals(
      { ...request, source: { position, emission } },
      lengthS,
    )) {
      for (let o = 0; o < gains.length; o++) gains[o] = gain * Math.sqrt(energy[o]!);
      addImpulse(bands, (distance / speed + delayS) * rate, gains);
    }
  }
  if (rays && volume !== null) {
    const { delayS, ...source } = rays.from.sources[rays.channel]!;
    const heard = heardAt({ ...request, source }, [], [rays.from.group], rays.channel);
    const field = { volume, speed, seed, middle: middleOf(scene), receiver };
    fieldPulses(evenly(heard), field, (atS, own) => addImpulse(bands, (delayS + atS) * rate, own));
  }
  const joined = joinOctaves(
    onAxis,
    bands.map((band) => realFft(band)),
    rate,
    lows,
  );
  // octaves are parted without phase: what rings ahead of the drive comes out at the end, a transform being a circle
  return inverseRealFft(joined).map((v, i) => v * cosineStep(i, END.to * size, END.from * size));
}
