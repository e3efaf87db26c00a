import type { APIRoute } from 'astro';
import { answer, guarded, letterOf } from '../../../../server/answers';
import { deskOf } from '../../../../server/desks';

/** Reads a memory back: settings as JSON, or with `?part=filters` all filters as little-endian float 32 in output order. */
export const GET: APIRoute = ({ params, url, cookies }) =>
  guarded(() => {
    const { summary, filters } = deskOf(cookies).read(letterOf(params.letter));
    if (url.searchParams.get('part') !== 'filters') return answer(summary);
    return new Response(filters.slice().buffer, {
      headers: { 'content-type': 'application/octet-stream', 'cache-control': 'no-store' },
    });
  });
