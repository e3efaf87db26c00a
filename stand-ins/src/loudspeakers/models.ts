import type { LoudspeakerModel } from '@pebble-hall/core/room';

/** Small full range, for a listening room. */
export const DUNLIN_6: LoudspeakerModel = {
  name: 'Dunlin 6',
  low: { frequency: 62, order: 3 },
  high: { frequency: 17500, order: 2 },
  resonances: [
    { frequency: 95, gainDb: 1.6, q: 1.2 },
    { frequency: 480, gainDb: -2.1, q: 1.1 },
    { frequency: 1350, gainDb: 2.6, q: 1.3 },
    { frequency: 3100, gainDb: -2.4, q: 1.6 },
    { frequency: 8600, gainDb: 2.2, q: 1.4 },
  ],
  levelDb: -4,
  distortion: { second: 0.012, third: 0.02 },
};

/** Subwoofer of a listening room. */
export const EIDER_10: LoudspeakerModel = {
  name: 'Eider 10',
  low: { frequency: 27, order: 4 },
  high: { frequency: 320, order: 2 },
  resonances: [{ frequency: 34, gainDb: 1.8, q: 1.4 }],
  levelDb: -1,
  distortion: { second: 0.03, third: 0.05 },
};

/** Full range for a hall, hung. */
export const TERN_12: LoudspeakerModel = {
  name: 'Tern 12',
  low: { frequency: 58, order: 4 },
  high: { frequency: 18000, order: 2 },
  resonances: [
    { frequency: 130, gainDb: 1.4, q: 1.1 },
    { frequency: 700, gainDb: -1.8, q: 1.2 },
    { frequency: 1500, gainDb: 2.1, q: 1.5 },
    { frequency: 5200, gainDb: -1.6, q: 1.8 },
  ],
  levelDb: 6,
  distortion: { second: 0.008, third: 0.01 },
};

/** Subwoofer for a hall. */
export const CORMORANT_18: LoudspeakerModel = {
  name: 'Cormorant 18',
  low: { frequency: 31, order: 4 },
  high: { frequency: 240, order: 2 },
  resonances: [{ frequency: 42, gainDb: 1.5, q: 1.5 }],
  levelDb: 8,
  distortion: { second: 0.02, third: 0.03 },
};

/** Front fill. */
export const PLOVER_6: LoudspeakerModel = {
  name: 'Plover 6',
  low: { frequency: 95, order: 3 },
  high: { frequency: 17000, order: 2 },
  resonances: [
    { frequency: 210, gainDb: 1.8, q: 1.1 },
    { frequency: 2400, gainDb: 1.9, q: 1.6 },
  ],
  levelDb: -2,
  distortion: { second: 0.012, third: 0.015 },
};

/** One box of a delay line. */
export const SANDERLING_5: LoudspeakerModel = {
  name: 'Sanderling 5',
  low: { frequency: 110, order: 3 },
  high: { frequency: 16500, order: 2 },
  resonances: [
    { frequency: 260, gainDb: 1.5, q: 1.2 },
    { frequency: 3400, gainDb: -1.7, q: 1.4 },
  ],
  levelDb: -3,
  distortion: { second: 0.012, third: 0.018 },
};

/** Large full range with three ways, for a hall. */
export const CURLEW_15: LoudspeakerModel = {
  name: 'Curlew 15',
  low: { frequency: 45, order: 4 },
  high: { frequency: 18500, order: 2 },
  resonances: [
    { frequency: 90, gainDb: 1.2, q: 1.1 },
    { frequency: 900, gainDb: -1.5, q: 1.2 },
    { frequency: 4200, gainDb: 1.4, q: 1.6 },
  ],
  levelDb: 8,
  distortion: { second: 0.008, third: 0.01 },
};

/** Element of a line that hangs. */
export const AVOCET_8: LoudspeakerModel = {
  name: 'Avocet 8',
  low: { frequency: 66, order: 4 },
  high: { frequency: 18000, order: 2 },
  resonances: [
    { frequency: 180, gainDb: 1.3, q: 1.1 },
    { frequency: 1200, gainDb: -1.6, q: 1.4 },
    { frequency: 6400, gainDb: 1.5, q: 1.7 },
  ],
  levelDb: 7,
  distortion: { second: 0.008, third: 0.01 },
};

/** Column of eight small cones. */
export const REDSHANK_8: LoudspeakerModel = {
  name: 'Redshank 8',
  low: { frequency: 140, order: 3 },
  high: { frequency: 15500, order: 2 },
  resonances: [
    { frequency: 320, gainDb: 1.4, q: 1.2 },
    { frequency: 2800, gainDb: -1.5, q: 1.5 },
  ],
  levelDb: 0,
  distortion: { second: 0.012, third: 0.016 },
};

/** In a ceiling. */
export const KNOT_6: LoudspeakerModel = {
  name: 'Knot 6',
  low: { frequency: 85, order: 3 },
  high: { frequency: 17500, order: 2 },
  resonances: [
    { frequency: 240, gainDb: 1.3, q: 1.2 },
    { frequency: 3600, gainDb: 1.6, q: 1.6 },
  ],
  levelDb: -3,
  distortion: { second: 0.012, third: 0.018 },
};

export const MODELS: readonly { role: 'full range' | 'subwoofer'; model: LoudspeakerModel }[] = [
  { role: 'full range', model: DUNLIN_6 },
  { role: 'full range', model: TERN_12 },
  { role: 'full range', model: PLOVER_6 },
  { role: 'full range', model: SANDERLING_5 },
  { role: 'full range', model: CURLEW_15 },
  { role: 'full range', model: AVOCET_8 },
  { role: 'full range', model: REDSHANK_8 },
  { role: 'full range', model: KNOT_6 },
  { role: 'subwoofer', model: EIDER_10 },
  { role: 'subwoofer', model: CORMORANT_18 },
];

/** The model of a name; one of a name that is not ours plays as the small one of its role. */
export const modelOf = (name: string, role: 'full range' | 'subwoofer'): LoudspeakerModel =>
  MODELS.find((m) => m.model.name === name)?.model ?? (role === 'subwoofer' ? EIDER_10 : DUNLIN_6);
