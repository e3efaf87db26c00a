import { seededRandom, seedFrom, shapedNoise } from '@pebble-hall/core/signal';

const RATE = 48000;
const turn = 2 * Math.PI;

type Make = (t: number, random: ReturnType<typeof seededRandom>) => number;
interface Kind {
  /** seconds that it lasts */
  lengthS: number;
  /** noise it is made of, or null for tones alone */
  noise: ((f: number) => number) | null;
  /** tone part and envelope at a time */
  tone?: (t: number) => number;
  envelope: Make;
}
const band = (low: number, high: number) => (f: number) => (f > low && f < high ? 1 / f : 0);
const dying = (tau: number) => (t: number) => Math.exp(-t / tau);
const bursts =
  (every: number, tau: number): Make =>
  (t) =>
    Math.exp(-(t % every) / tau);
const swell = (length: number) => (t: number) => Math.sin((Math.PI * t) / length) ** 2;

/** What spoils sweeps: twenty kinds of sound, each with its own band, length and course; unit peak about. */
export const DISTURBANCES: Record<string, Kind> = {
  'door slam': { lengthS: 0.35, noise: band(45, 5000), envelope: dying(0.055) },
  'creaking chair': { lengthS: 0.5, noise: band(600, 4000), envelope: bursts(0.045, 0.006) },
  cough: {
    lengthS: 0.4,
    noise: band(300, 6000),
    envelope: (t) => Math.exp(-((t - 0.1) ** 2) / 0.003) + 0.5 * Math.exp(-((t - 0.28) ** 2) / 0.002),
  },
  'a spoken word': {
    lengthS: 0.6,
    noise: null,
    tone: (t) => [1, 2, 3, 5, 8].reduce((s, k) => s + Math.sin(turn * 130 * k * t) / k, 0) / 2,
    envelope: swell(0.6),
  },
  footsteps: { lengthS: 1.2, noise: band(30, 400), envelope: bursts(0.55, 0.03) },
  'clinking glass': {
    lengthS: 0.5,
    noise: null,
    tone: (t) => Math.sin(turn * 3150 * t) + 0.6 * Math.sin(turn * 5720 * t),
    envelope: dying(0.12),
  },
  'phone tone': {
    lengthS: 0.7,
    noise: null,
    tone: (t) => Math.sin(turn * (t < 0.3 ? 1320 : 1760) * t),
    envelope: () => 1,
  },
  'lorry passing': { lengthS: 2.5, noise: band(25, 120), envelope: swell(2.5) },
  'fan starting': { lengthS: 2, noise: band(60, 2500), envelope: (t) => Math.min(1, t / 0.5) },
  clapping: { lengthS: 0.8, noise: band(800, 9000), envelope: bursts(0.25, 0.012) },
  'jingling keys': { lengthS: 0.5, noise: band(3500, 15000), envelope: bursts(0.06, 0.01) },
  'barking dog': { lengthS: 0.25, noise: band(400, 2500), envelope: swell(0.25) },
  'dropped coin': {
    lengthS: 0.4,
    noise: null,
    tone: (t) => Math.sin(turn * 4300 * t) + Math.sin(turn * 7900 * t),
    envelope: bursts(0.13, 0.025),
  },
  'scraping chair': { lengthS: 0.7, noise: band(150, 1500), envelope: swell(0.7) },
  laughter: {
    lengthS: 1,
    noise: null,
    tone: (t) => [1, 2, 3, 4, 6].reduce((s, k) => s + Math.sin(turn * 240 * k * t) / k, 0) / 2,
    envelope: bursts(0.2, 0.06),
  },
  'drum being set up': {
    lengthS: 0.4,
    noise: null,
    tone: (t) => Math.sin(turn * 92 * t),
    envelope: dying(0.1),
  },
  whistling: {
    lengthS: 0.8,
    noise: null,
    tone: (t) => Math.sin(turn * (1500 * t + 200 * t * t)),
    envelope: swell(0.8),
  },
  'click of a switch': { lengthS: 0.02, noise: band(200, 16000), envelope: dying(0.002) },
  'stand that is touched': { lengthS: 0.3, noise: band(25, 90), envelope: swell(0.3) },
  'beep of a till': { lengthS: 0.15, noise: null, tone: (t) => Math.sin(turn * 2750 * t), envelope: () => 1 },
};

/** A disturbance of a kind, its loudest sample at 1. */
export function disturbance(kind: string, seed: number): Float64Array {
  const { lengthS, noise, tone, envelope } = DISTURBANCES[kind]!;
  const length = Math.round(lengthS * RATE);
  const random = seededRandom(seedFrom(seed, kind));
  const carrier = noise
    ? shapedNoise(length, RATE, seedFrom(seed, `noise ${kind}`), noise)
    : Float64Array.from({ length }, (_, i) => tone!(i / RATE));
  const edge = 0.002 * RATE;
  const out = carrier.map(
    (v, i) => v * envelope(i / RATE, random) * Math.min(1, i / edge, (length - i) / edge),
  );
  const peak = out.reduce((m, v) => Math.max(m, Math.abs(v)), 1e-12);
  return out.map((v) => v / peak);
}
