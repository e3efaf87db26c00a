/** The link to the stand-in is as slow as a real processor's: about 100 kB/s. */
export const CHUNK_BYTES = 8192;
const BYTES_PER_SECOND = 100_000;

export const linkTime = (bytes: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, (1000 * bytes) / BYTES_PER_SECOND));
