/** Open file formats, read with reasons and written so that other software can read them. */
export { FormatError } from './formatError.js';
export { crc32 } from './crc32.js';
export { openAes69, type Aes69 } from './openAes69.js';
export { readAes69Responses, type Aes69Response } from './aes69Responses.js';
export { readAes69Head, type HeadImpulse, type HeadSet } from './aes69Head.js';
export { writeAes69Responses, type WrittenResponse } from './writeAes69.js';
export { flacHead, withFlacComment } from './flacHead.js';
export { readWav, writeWav, type WavSound } from './wav.js';
export {
  impulseHead,
  needImpulse,
  readImpulseHead,
  readImpulseText,
  writeImpulseText,
  type TextImpulse,
} from './impulseText.js';
export {
  COMMA_READINGS,
  readResponseText,
  responseReadings,
  writeResponseText,
  type CommaReading,
  type ResponseTable,
} from './responseText.js';
export { calibrationReadings, readCalibrationText, type MicrophoneCalibration } from './calibrationText.js';
export { bytesOfText, packFiles, textOfBytes, unpackFiles } from './zip.js';
export {
  biquadIn,
  sectionsCsv,
  sectionsJson,
  sectionsText,
  type NamedSections,
  type SignConvention,
} from './sectionFiles.js';
export { readTargetText, writeTargetText } from './targetText.js';
export { readNumberTable, type NumberTable } from './numberTable.js';
export { MOST_TEXT, textLines } from './textLines.js';
export { flacLength } from './flacLength.js';
export { readNumbers, type Numbers } from './readNumbers.js';
export { readNpy, writeNpy, type NumberArray } from './npy.js';
