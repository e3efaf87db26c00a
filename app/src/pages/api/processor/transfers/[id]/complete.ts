import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../../../server/answers';
import { deskOf } from '../../../../../server/desks';

/** Verifies a transfer, replaces the memory and makes it active. */
export const POST: APIRoute = ({ params, cookies }) =>
  guarded(() => answer(deskOf(cookies).complete(params.id ?? '')));
