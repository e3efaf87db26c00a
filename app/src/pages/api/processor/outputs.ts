import type { OutputChange } from '@pebble-hall/core/processing';
import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { processorFor } from '../../../server/desks';
import { outputsSchema } from '../../../server/schemas';

/** Changes trims, delays, polarity and muting of the active memory, at once. */
export const POST: APIRoute = ({ request, cookies }) =>
  guarded(async () => {
    const desk = processorFor(cookies, request);
    const { changes } = await jsonBody<{ changes: OutputChange[] }>(request, outputsSchema);
    desk.set(changes);
    return answer(desk.state());
  });
