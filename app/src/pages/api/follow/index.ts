import type { APIRoute } from 'astro';
import { followPages } from '../../../server/addresses';
import { answer, guarded } from '../../../server/answers';
import { listeningOf } from '../../../server/listening';
import { followedRounds } from '../../../server/rounds';

/** Begins a round that can be followed: code, link, key, and where a phone finds this server. */
export const POST: APIRoute = ({ clientAddress }) =>
  guarded(() =>
    answer({ ...followedRounds.begin(clientAddress), addresses: followPages(listeningOf(process.env)) }),
  );
