import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../../../server/answers';
import { processorUsed } from '../../../../../server/desks';

/** Verifies a transfer, replaces the memory and makes it active. */
export const POST: APIRoute = (asking) =>
  guarded(() => answer(processorUsed(asking).complete(asking.params.id ?? '')));
