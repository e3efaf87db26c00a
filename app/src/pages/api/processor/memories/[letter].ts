import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody, letterOf } from '../../../../server/answers';
import { processorFor } from '../../../../server/desks';
import { copySchema, renameSchema } from '../../../../server/schemas';

/** Names a memory. */
export const PATCH: APIRoute = ({ params, request, cookies }) =>
  guarded(async () => {
    const desk = processorFor(cookies, request);
    desk.rename(letterOf(params.letter), (await jsonBody(request, renameSchema)).name);
    return answer(desk.state());
  });

/** Copies a memory over another. */
export const POST: APIRoute = ({ params, request, cookies }) =>
  guarded(async () => {
    const desk = processorFor(cookies, request);
    desk.copy(letterOf(params.letter), (await jsonBody(request, copySchema)).to);
    return answer(desk.state());
  });

/** Reads a memory back: settings as JSON, or with `?part=filters` all filters as little-endian float 32 in output order. */
export const GET: APIRoute = ({ params, url, cookies, request }) =>
  guarded(() => {
    const { summary, filters } = processorFor(cookies, request).read(letterOf(params.letter));
    if (url.searchParams.get('part') !== 'filters') return answer(summary);
    return new Response(filters.slice().buffer, {
      headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
    });
  });
