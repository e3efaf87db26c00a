/** A file that cannot be taken, with a reason for the user: what is wrong, where, and what would be right. */
export class FormatError extends Error {
  override name = 'FormatError';
}
