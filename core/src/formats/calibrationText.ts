import { FormatError } from './formatError.js';
import { readResponseText, responseReadings, type CommaReading, type ResponseTable } from './responseText.js';

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
/** So much of what stands over the numbers is looked through for serial, sensitivity and angle, in time that grows no faster. */
const MOST_COMMENTS = 200;
const MOST_COMMENT = 300;

/** A microphone gives between these for a sound pressure of 1 Pa, dB re 1 V: what is stated beyond is something else. */
const LEAST_SENSITIVITY_DB = -80;
const MOST_SENSITIVITY_DB = -10;

/**
 * Reads a microphone calibration file: a response as text, with sensitivity, serial and angle taken from its comments when they
 * are stated there ("sensitivity -38.2 dB", "12.3 mV/Pa", "serial 4417", "90 degrees"), the angle from its name as well.
 * @param name of the file
 * @throws FormatError with the reason
 */
export const readCalibrationText = (text: string, name = ''): MicrophoneCalibration =>
  calibrationOf(readResponseText(text, FEWEST_POINTS), name);

/**
 * The same in every way in which the text makes sense, the likelier one first: where its commas may separate columns or be decimal
 * ones, somebody has to choose.
 * @throws FormatError with the reason where none does
 */
export function calibrationReadings(
  text: string,
  name = '',
): { reading: CommaReading; calibration: MicrophoneCalibration }[] {
  const readings = responseReadings(text, FEWEST_POINTS).flatMap(({ reading, table }, i, all) => {
    try {
      return [{ reading, calibration: calibrationOf(table, name) }];
    } catch (error) {
      // one that is no calibration is no reading of one; with a single reading that is the reason
      if (all.length === 1) throw error;
      return [];
    }
  });
  if (readings.length === 0)
    throw new FormatError('However its commas are read, the file is no calibration of a microphone.');
  return readings.reverse();
}

function calibrationOf(
  { frequency, levelDb, phaseDeg, comments }: ResponseTable,
  name: string,
): MicrophoneCalibration {
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
  const all = comments
    .slice(0, MOST_COMMENTS)
    .map((c) => c.slice(0, MOST_COMMENT))
    .join('\n');
  const serial =
    /(?:serial|ser\.?\s?no\b|\bs\/?n\b|no\.)[^\w]{0,12}(?:number|no\.?)?[^\w]{0,12}([\w-]{1,64})/i.exec(all);
  return {
    frequency: Array.from(frequency),
    levelDb: Array.from(levelDb),
    sensitivityDb: sensitivityOf(all),
    serial: serial ? serial[1]! : null,
    incidenceDeg: incidenceOf(all) ?? incidenceOf(name.replaceAll('_', ' ')),
    phaseDeg: phaseDeg ? Array.from(phaseDeg) : null,
    comments: comments.slice(0, MOST_COMMENTS).map((c) => c.slice(0, MOST_COMMENT)),
  };
}

/** "sensitivity -38.2 dB", "12.3 mV/Pa"; dB re 1 V/Pa. */
function sensitivityOf(text: string): number | null {
  const number = (found: RegExpExecArray) => Number(found[1]!.replace(',', '.'));
  const volts = /(\d{1,6}(?:[.,]\d{1,9})?)\s{0,4}mV\s{0,4}\/\s{0,4}Pa/i.exec(text);
  const stated = /sens\w{0,12}[^\d+-]{0,40}([+-]?\d{1,4}(?:[.,]\d{1,9})?)\s{0,4}dB/i.exec(text);
  const db = volts ? 20 * Math.log10(number(volts) / 1000) : stated ? number(stated) : NaN;
  return db >= LEAST_SENSITIVITY_DB && db <= MOST_SENSITIVITY_DB ? db : null;
}

/** "angle of incidence 90 degrees", "0 deg", "incidence: 0", "90°", "on-axis", "diffuse" (which is no angle). */
function incidenceOf(text: string): number | null {
  const stated =
    /(?:incidence|angle)\D{0,20}?(\d{1,3})/i.exec(text) ??
    /(\d{1,3})\s{0,4}(?:\u00B0|deg\b|degrees?\b)/i.exec(text);
  if (stated && Number(stated[1]) <= 180) return Number(stated[1]);
  return /\bon[- ]axis\b/i.test(text) ? 0 : null;
}
