/** What a hall is expected to give at a distance, without knowing its walls. */
export interface ExpectedFigures {
  /** strength, dB */
  g: number;
  /** clarity, dB */
  c80: number;
  c50: number;
  /** definition, 0 to 1 */
  d50: number;
}

/** Natural logarithm of 10^6: so much energy dies away within a reverberation time. */
const SIXTY_DB = 13.82;
/** Reverberant energy against that of the direct sound at 10 m, times volume over reverberation time (31,200 at 20 °C). */
const REVERBERANT = 31_200;
/** s/m: what is reverberant starts when the direct sound arrives. */
const LATER = 0.04;

/**
 * Figures over the distance from an omnidirectional source, as the revised theory of sound in halls tells them (Barron and Lee,
 * J. Acoust. Soc. Am. 84, 1988): the direct sound, and a reverberant field that starts where the direct sound is and decays with T.
 * @param distanceM from the source, m
 * @param timeS reverberation time, s
 * @param volume cubic metres
 * @throws RangeError where one of them is not above zero
 */
export function expectedFigures(distanceM: number, timeS: number, volume: number): ExpectedFigures {
  if (!(distanceM > 0 && timeS > 0 && volume > 0))
    throw new RangeError(
      `expectedFigures: distance ${distanceM} m, time ${timeS} s and volume ${volume} m³ must lie above zero`,
    );
  const direct = 100 / distanceM ** 2;
  const reverberant = ((REVERBERANT * timeS) / volume) * Math.exp((-LATER * distanceM) / timeS);
  const lateOf = (s: number) => reverberant * Math.exp((-SIXTY_DB * s) / timeS);
  const clarity = (s: number) => 10 * Math.log10((direct + reverberant - lateOf(s)) / lateOf(s));
  const all = direct + reverberant;
  return {
    g: 10 * Math.log10(all),
    c80: clarity(0.08),
    c50: clarity(0.05),
    d50: (all - lateOf(0.05)) / all,
  };
}
