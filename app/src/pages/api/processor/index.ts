import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../server/answers';
import { deskOf } from '../../../server/desks';

/** State of this browser's processor: memories, settings, checksums. */
export const GET: APIRoute = ({ cookies }) => guarded(() => answer(deskOf(cookies).state()));
