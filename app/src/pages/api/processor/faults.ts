import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../server/answers';
import { deskOf } from '../../../server/desks';
import { faultSchema } from '../../../server/schemas';

/** Practice fault of the stand-in: the link breaks once a share of the next transfer has arrived. */
export const POST: APIRoute = ({ request, cookies }) =>
  guarded(async () => {
    const desk = deskOf(cookies);
    desk.breakAtShare = (await jsonBody(request, faultSchema)).breakAtShare;
    return answer({ breakAtShare: desk.breakAtShare });
  });
