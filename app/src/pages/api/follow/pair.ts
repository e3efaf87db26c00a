import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { followedRounds, pairSchema } from '../../../server/rounds';

/** The link of a round, for whoever has read its code. */
export const POST: APIRoute = ({ request, clientAddress }) =>
  guarded(async () => {
    const { code } = await jsonBody(request, pairSchema, 1000);
    return answer({ link: followedRounds.pair(code, clientAddress) });
  });
