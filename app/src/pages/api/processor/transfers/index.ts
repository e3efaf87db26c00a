import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../../server/answers';
import { processorUsed } from '../../../../server/desks';
import { transferSchema } from '../../../../server/schemas';
import { CHUNK_BYTES } from '../../../../server/link';

/** Announces a transfer into a memory. */
export const POST: APIRoute = (asking) =>
  guarded(async () => {
    const { letter, name, outputs, checksum } = await jsonBody(asking.request, transferSchema);
    return answer(
      { ...processorUsed(asking).begin(letter, name, outputs, checksum), chunkBytes: CHUNK_BYTES },
      201,
    );
  });
