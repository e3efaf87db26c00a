/** Loudspeakers of one's own: read from AES69 files and tables of polar data, made from traces at angles, or guessed. */
export { extentWords, type ReadLoudspeaker } from './readLoudspeaker.js';
export { readPolarTable, writePolarTable, type PolarPlane, type PolarTable } from './polarTable.js';
export { readAes69 } from './readAes69.js';
export { radiatingFrom, radiatingGuess, readLoudspeakerFile, type NamedLevels } from './ownLoudspeaker.js';
export { polarFromTraces, seenFrom, type SeenAt, type TraceAtAngle } from './polarFromTraces.js';
export {
  GUESS_KINDS,
  guessLoudspeaker,
  type Guess,
  type GuessedLoudspeaker,
  type GuessKind,
} from './guess.js';
