import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { processorFor } from '../../../server/desks';
import { recallSchema } from '../../../server/schemas';

/** Makes a memory the active one. */
export const POST: APIRoute = ({ request, cookies }) =>
  guarded(async () => {
    const desk = processorFor(cookies, request);
    desk.recall((await jsonBody(request, recallSchema)).letter);
    return answer(desk.state());
  });
