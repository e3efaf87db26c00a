import type { APIRoute } from 'astro';
import { answer, BadRequest, bodyUpTo, guarded } from '../../../../../server/answers';
import { processorSeen, processorUsed } from '../../../../../server/desks';
import { CHUNK_BYTES, linkTime } from '../../../../../server/link';

/** Takes one chunk; `?offset=` is its first byte, `?crc=` the CRC-32 of its bytes. */
export const PUT: APIRoute = (asking) =>
  guarded(async () => {
    const [offset, crc] = ['offset', 'crc'].map((name) => Number(asking.url.searchParams.get(name) ?? NaN));
    if (!Number.isInteger(offset) || !Number.isInteger(crc))
      throw new BadRequest(400, 'A chunk needs offset and crc.');
    const bytes = await bodyUpTo(asking.request, CHUNK_BYTES);
    await linkTime(bytes.length);
    return answer(processorUsed(asking).chunk(asking.params.id ?? '', offset!, bytes, crc!));
  });

/** How far a transfer is, to go on with it. */
export const GET: APIRoute = (asking) =>
  guarded(() =>
    answer({ ...processorSeen(asking).transferOf(asking.params.id ?? ''), chunkBytes: CHUNK_BYTES }),
  );

/** Gives a transfer up; the memory stays as it was. */
export const DELETE: APIRoute = (asking) =>
  guarded(() => {
    const desk = processorUsed(asking);
    desk.abandon(asking.params.id ?? '');
    return answer(desk.state());
  });
