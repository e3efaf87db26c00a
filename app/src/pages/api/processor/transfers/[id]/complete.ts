import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../../../server/answers';
import { processorFor } from '../../../../../server/desks';

/** Verifies a transfer, replaces the memory and makes it active. */
export const POST: APIRoute = ({ params, cookies, request }) =>
  guarded(() => answer(processorFor(cookies, request).complete(params.id ?? '')));
