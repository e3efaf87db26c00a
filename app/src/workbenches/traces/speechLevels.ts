import { SPEECH_OCTAVES, SPEECH_SPECTRUM_DB, type SpeechAndNoise } from '@pebble-hall/core/acoustics';
import type { NoiseReading } from '@pebble-hall/core/project';
import { dbOfPower, powerOfDb } from '@pebble-hall/core/signal';

/**
 * What speech of a level has to stand against: the measured noise, its third octaves summed to octaves and raised to
 * sound pressure level.
 * @param speechDbA A-weighted level of the speech at the seats
 * @param offsetDb from dB re full scale to dB SPL, by the level calibration
 */
export function speechAndNoise(
  { bands }: Pick<NoiseReading, 'bands'>,
  speechDbA: number,
  offsetDb: number,
): SpeechAndNoise {
  const noiseDb = SPEECH_OCTAVES.map(({ from, to }) => {
    const power = bands
      .filter((b) => b.centre > from && b.centre < to)
      .reduce((sum, b) => sum + powerOfDb(b.noiseDb), 0);
    return power > 0 ? dbOfPower(power) + offsetDb : -100;
  });
  return { speechDb: SPEECH_SPECTRUM_DB.map((db) => speechDbA + db), noiseDb };
}
