import type { OutputChange } from '@pebble-hall/core/processing';
import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { processorUsed } from '../../../server/desks';
import { outputsSchema } from '../../../server/schemas';

/** Changes trims, delays, polarity and muting of the active memory, at once. */
export const POST: APIRoute = (asking) =>
  guarded(async () => {
    const desk = processorUsed(asking);
    const { changes } = await jsonBody<{ changes: OutputChange[] }>(asking.request, outputsSchema);
    desk.set(changes);
    return answer(desk.state());
  });
