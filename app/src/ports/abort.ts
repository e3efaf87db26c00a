/** The error that something cancelled ends with. */
export const abortError = (): DOMException => new DOMException('Cancelled.', 'AbortError');

export const isAbort = (error: unknown): boolean =>
  error instanceof DOMException && error.name === 'AbortError';
