/** The worker itself failed, not what it was asked for: the same may well succeed in a moment. */
export class WorkerError extends Error {
  override name = 'WorkerError';
}
