import type { APIRoute } from 'astro';
import { answer, BadRequest, bodyUpTo, guarded } from '../../../../../server/answers';
import { processorFor } from '../../../../../server/desks';
import { CHUNK_BYTES, linkTime } from '../../../../../server/link';

/** Takes one chunk; `?offset=` is its first byte, `?crc=` the CRC-32 of its bytes. */
export const PUT: APIRoute = ({ params, request, url, cookies }) =>
  guarded(async () => {
    const [offset, crc] = ['offset', 'crc'].map((name) => Number(url.searchParams.get(name) ?? NaN));
    if (!Number.isInteger(offset) || !Number.isInteger(crc))
      throw new BadRequest(400, 'A chunk needs offset and crc.');
    const bytes = await bodyUpTo(request, CHUNK_BYTES);
    await linkTime(bytes.length);
    return answer(processorFor(cookies, request).chunk(params.id ?? '', offset!, bytes, crc!));
  });

/** How far a transfer is, to go on with it. */
export const GET: APIRoute = ({ params, cookies, request }) =>
  guarded(() =>
    answer({ ...processorFor(cookies, request).transferOf(params.id ?? ''), chunkBytes: CHUNK_BYTES }),
  );

/** Gives a transfer up; the memory stays as it was. */
export const DELETE: APIRoute = ({ params, cookies, request }) =>
  guarded(() => {
    const desk = processorFor(cookies, request);
    desk.abandon(params.id ?? '');
    return answer(desk.state());
  });
