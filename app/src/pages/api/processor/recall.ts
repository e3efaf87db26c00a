import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { processorUsed } from '../../../server/desks';
import { recallSchema } from '../../../server/schemas';

/** Makes a memory the active one. */
export const POST: APIRoute = (asking) =>
  guarded(async () => {
    const desk = processorUsed(asking);
    desk.recall((await jsonBody(asking.request, recallSchema)).letter);
    return answer(desk.state());
  });
