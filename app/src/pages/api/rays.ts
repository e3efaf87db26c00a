import type { RoomRun } from '@pebble-hall/core/runs';
import type { APIRoute } from 'astro';
import { BadRequest, guarded, jsonBody } from '../../server/answers';
import { raysSchema, sentOf, type RaysAsked } from '../../server/raysSchema';
import { traceOnServer } from '../../server/tracers';

/** A run of 5,000 faces and what a loudspeaker sends. */
const MOST_BYTES = 4_000_000;

/** Traces one group of rays of a run; ended when nobody waits for it any longer. */
export const POST: APIRoute = ({ request }) =>
  guarded(async () => {
    const { run, source, group, sent } = await jsonBody<RaysAsked>(request, raysSchema, MOST_BYTES);
    if (source >= run.sources.length) throw new BadRequest(400, 'The run has no such source.');
    const traced = await tracedOr(run, () =>
      traceOnServer({ run, source, group, sent: sentOf(sent) }, request.signal),
    );
    return new Response(traced.slice(), {
      headers: { 'content-type': 'application/zip', 'cache-control': 'no-store' },
    });
  });

/** What the room cannot be traced for is the asker's to mend. */
async function tracedOr(run: RoomRun, trace: () => Promise<Uint8Array>): Promise<Uint8Array> {
  try {
    return await trace();
  } catch (error) {
    if (error instanceof RangeError)
      throw new BadRequest(400, `${run.name} cannot be traced: ${error.message}.`);
    throw error;
  }
}
