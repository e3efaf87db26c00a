import {
  biquadSpectrum,
  butterworth,
  dbOfPower,
  interpolateLog,
  logGrid,
  peaking,
  powerOf,
  type Biquad,
  binFrequencies,
} from '@pebble-hall/core/signal';

const RATE = 48000;

/** Angle of incidence: pointing at the source, or upright (the sound comes from the side). */
export type Incidence = 0 | 90;

/** What a Siskin M1 adds to the truth; each serial differs a little. From the side it hears less in the highs. */
export function siskinSections(serial: number, incidence: Incidence = 0): Biquad[] {
  const own = (n: number) => (((serial * 7919 + n * 104729) % 1000) / 1000 - 0.5) * 2; // -1 to 1, fixed per serial
  return [
    ...butterworth('highpass', 1, 7 + own(1), RATE),
    peaking(4200 + 300 * own(2), 0.6 + 0.3 * own(3), 1.2, RATE),
    peaking(12800 + 700 * own(4), 3.1 + 0.6 * own(5), 1.1, RATE),
    peaking(260, 0.25 * own(6), 0.7, RATE),
    ...(incidence === 90 ? [peaking(14500 + 500 * own(7), -4.6, 0.8, RATE)] : []),
  ];
}

/** The calibration file that comes with a Siskin M1: its curve against 1 kHz in sixths of an octave, to 0.01 dB. */
export function siskinCalibrationText(serial: number, incidence: Incidence = 0): string {
  const frequency = logGrid(15, 22000, 6);
  const size = 1 << 18;
  const level = powerOf(biquadSpectrum(siskinSections(serial, incidence), size)).map(dbOfPower);
  const bins = binFrequencies(size, RATE);
  const at = interpolateLog(bins.subarray(1), level.subarray(1), frequency);
  const reference = interpolateLog(bins.subarray(1), level.subarray(1), Float64Array.of(1000))[0]!;
  const rows = Array.from(frequency, (f, i) => `${f.toFixed(2)}\t${(at[i]! - reference).toFixed(2)}`);
  return [
    `* Siskin M1, serial ${serial}`,
    `* angle of incidence ${incidence} degrees (${incidence === 0 ? 'pointing at the source' : 'upright'})`,
    '* sensitivity -36.4 dB re 1 V/Pa at 1 kHz',
    '* Frequency (Hz)\tLevel (dB)',
    ...rows,
    '',
  ].join('\n');
}

/** The serial of the microphone in the Net Loft. */
export const NET_LOFT_SISKIN = 4417;

/** Serials that the maker's look-up knows. The file of one was damaged on its way into the archive. */
export const KNOWN_SISKINS = [4417, 4418, 4502, 5120, 5333] as const;
export const DAMAGED_SISKIN = 5333;
