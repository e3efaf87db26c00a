import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../../server/answers';
import { commandSchema, followedRounds } from '../../../../server/rounds';

/** Asks the tab that measures for something. */
export const POST: APIRoute = ({ params, request }) =>
  guarded(async () => {
    const command = await jsonBody(request, commandSchema, 1000);
    followedRounds.ask(params['link'] ?? '', command);
    return answer({}, 202);
  });
