import type { APIRoute } from 'astro';
import { answer, guarded } from '../../../server/answers';
import { processorSeen } from '../../../server/desks';

/** State of this browser's processor: memories, settings, checksums. */
export const GET: APIRoute = (asking) => guarded(() => answer(processorSeen(asking).state()));
