/** What is told of a file: by its name, as what a worker throws has lost its class on the way. */
const TOLD = ['FormatError', 'RangeError', 'WorkerError'];

/** What is wrong with a file. @param otherwise what is said where nobody foresaw it */
export const readProblem = (error: unknown, otherwise: string): string =>
  error instanceof Error && TOLD.includes(error.name) ? error.message : otherwise;
