import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../server/answers';
import { processorFor } from '../../../server/desks';

/** State of this browser's processor: memories, settings, checksums. */
export const GET: APIRoute = ({ cookies, request }) =>
  guarded(() => answer(processorFor(cookies, request).state()));
