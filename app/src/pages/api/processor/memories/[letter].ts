import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody, letterOf } from '../../../../server/answers';
import { processorSeen, processorUsed } from '../../../../server/desks';
import { copySchema, renameSchema } from '../../../../server/schemas';

/** Names a memory. */
export const PATCH: APIRoute = (asking) =>
  guarded(async () => {
    const desk = processorUsed(asking);
    desk.rename(letterOf(asking.params.letter), (await jsonBody(asking.request, renameSchema)).name);
    return answer(desk.state());
  });

/** Copies a memory over another. */
export const POST: APIRoute = (asking) =>
  guarded(async () => {
    const desk = processorUsed(asking);
    desk.copy(letterOf(asking.params.letter), (await jsonBody(asking.request, copySchema)).to);
    return answer(desk.state());
  });

/** Reads a memory back: settings as JSON, or with `?part=filters` all filters as little-endian float 32 in output order. */
export const GET: APIRoute = (asking) =>
  guarded(() => {
    const { summary, filters } = processorSeen(asking).read(letterOf(asking.params.letter));
    if (asking.url.searchParams.get('part') !== 'filters') return answer(summary);
    return new Response(filters.slice().buffer, {
      headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
    });
  });
