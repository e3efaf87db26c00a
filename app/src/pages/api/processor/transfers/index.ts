import type { APIRoute } from 'astro';
import { answer, guarded, jsonBody } from '../../../../server/answers';
import { processorFor } from '../../../../server/desks';
import { transferSchema } from '../../../../server/schemas';
import { CHUNK_BYTES } from '../../../../server/link';

/** Announces a transfer into a memory. */
export const POST: APIRoute = ({ request, cookies }) =>
  guarded(async () => {
    const { letter, name, outputs, checksum } = await jsonBody(request, transferSchema);
    return answer(
      { ...processorFor(cookies, request).begin(letter, name, outputs, checksum), chunkBytes: CHUNK_BYTES },
      201,
    );
  });
