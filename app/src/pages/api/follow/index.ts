import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../server/answers';
import { addressesInNetwork, followedRounds } from '../../../server/rounds';

/** Begins a round that can be followed: code, key, and where a phone finds this server. */
export const POST: APIRoute = ({ url }) =>
  guarded(() => {
    const addresses = addressesInNetwork(process.env['HOST']).map(
      (a) => `${url.protocol}//${a}:${url.port}/follow`,
    );
    return answer({ ...followedRounds.begin(), addresses });
  });
