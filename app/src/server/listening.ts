import type { Listening } from './addresses';

/** Loopback only, unless told otherwise. */
export const listeningOf = (told: Record<string, string | undefined>): Listening => ({
  host: told['HOST'] || '127.0.0.1',
  port: Number(told['PORT'] || 4173),
});
