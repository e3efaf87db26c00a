/** A message is for reading. */
const MOST_MESSAGE = 320;

/** A file that cannot be taken, with a reason for the user: what is wrong, where, and what would be right. */
export class FormatError extends Error {
  override name = 'FormatError';

  /** @param message is cut where a file has brought along too much of it */
  constructor(message: string) {
    super(message.length > MOST_MESSAGE ? `${message.slice(0, MOST_MESSAGE - 2)} …` : message);
  }
}
