import { LEFT_OVER } from '@pebble-hall/stand-ins/processor';
import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { processorUsed } from '../../../server/desks';
import { faultSchema } from '../../../server/schemas';

/** Practice faults of the stand-in: the link breaks once a share of the next transfer has arrived; settings left over from before. */
export const POST: APIRoute = (asking) =>
  guarded(async () => {
    const desk = processorUsed(asking);
    const { breakAtShare, leftOver } = await jsonBody(asking.request, faultSchema);
    if (breakAtShare !== undefined) desk.breakAtShare = breakAtShare;
    if (leftOver) desk.set(LEFT_OVER);
    return answer({ breakAtShare: desk.breakAtShare });
  });
