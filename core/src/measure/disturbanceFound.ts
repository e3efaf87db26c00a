/** Something in a recording that is neither sweep nor harmonic nor steady noise. */
export interface Disturbance {
  /** when it was loudest, seconds after the start of the sweep; below 0 when ahead of it */
  atS: number;
  durationS: number;
  fromHz: number;
  toHz: number;
  /** how far its loudest octave rose above the noise */
  levelDb: number;
}
