import { FormatError } from './formatError.js';
import { readResponseText } from './responseText.js';

/** Calibration of a microphone: how much it reads over the truth at each frequency. */
export interface MicrophoneCalibration {
  frequency: number[];
  levelDb: number[];
  /** dB re 1 V/Pa where the file states it */
  sensitivityDb: number | null;
  serial: string | null;
  /** angle of incidence, degrees, where the file states it */
  incidenceDeg: number | null;
  /** degrees at each frequency where the file has a third column; read, not used */
  phaseDeg: number[] | null;
  comments: string[];
}

/** A microphone that is this far off at a frequency is no measurement microphone: the file is something else. */
const MOST_DB = 40;
const FEWEST_POINTS = 5;

/**
 * Reads a microphone calibration file: a response as text, with sensitivity and serial taken from its comments when they
 * are stated there ("sensitivity -38.2 dB", "serial 4417").
 * @throws FormatError with the reason
 */
export function readCalibrationText(text: string): MicrophoneCalibration {
  const { frequency, levelDb, phaseDeg, comments } = readResponseText(text, FEWEST_POINTS);
  const far = levelDb.findIndex((level) => Math.abs(level) > MOST_DB);
  if (far >= 0) {
    throw new FormatError(
      `At ${frequency[far]} Hz the file says ${levelDb[far]} dB; a microphone calibration stays within ${MOST_DB} dB. ` +
        'Is this the calibration of the microphone, and not a measured response?',
    );
  }
  if (!(frequency[0]! <= 1000 && frequency.at(-1)! >= 1000)) {
    throw new FormatError(
      `The file covers ${frequency[0]} to ${frequency.at(-1)} Hz; a calibration must reach across 1 kHz.`,
    );
  }
  const all = comments.join('\n');
  const sensitivity = /sens\w*[^\d+-]*([+-]?\d+(?:[.,]\d+)?)\s*dB/i.exec(all);
  const serial = /(?:serial|s\/n|no\.)[^\w]*(?:number|no\.?)?[^\w]*([\w-]+)/i.exec(all);
  return {
    frequency: Array.from(frequency),
    levelDb: Array.from(levelDb),
    sensitivityDb: sensitivity ? Number(sensitivity[1]!.replace(',', '.')) : null,
    serial: serial ? serial[1]! : null,
    incidenceDeg: incidenceOf(all),
    phaseDeg: phaseDeg ? Array.from(phaseDeg) : null,
    comments,
  };
}

/** "angle of incidence 90 degrees", "0 deg", "incidence: 0", "90°", "on-axis", "diffuse" (which is no angle). */
function incidenceOf(text: string): number | null {
  const stated =
    /(?:incidence|angle)\D{0,20}?(\d{1,3})/i.exec(text) ??
    /(\d{1,3})\s*(?:\u00B0|deg\b|degrees?\b)/i.exec(text);
  if (stated && Number(stated[1]) <= 180) return Number(stated[1]);
  return /\bon[- ]axis\b/i.test(text) ? 0 : null;
}
