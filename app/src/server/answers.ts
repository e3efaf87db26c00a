import { ProcessorRefusal, SKERRY } from '@pebble-hall/stand-ins/processor';
import type Joi from 'joi';

/** JSON answer. */
export const answer = (value: unknown, status = 200): Response =>
  new Response(JSON.stringify(value), {
    status,
    headers: { 'content-type': 'application/json', 'cache-control': 'no-store' },
  });

/** A request that cannot be taken, with the status that says why. */
export class BadRequest extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** Runs an endpoint; refusals become answers with a reason, anything else a 500 that tells nothing of the inside. */
export async function guarded(run: () => Promise<Response> | Response): Promise<Response> {
  try {
    return await run();
  } catch (error) {
    if (error instanceof ProcessorRefusal || error instanceof BadRequest) {
      return answer({ problem: error.message }, error.status);
    }
    console.error(error);
    return answer({ problem: 'The server failed at this. Try again.' }, 500);
  }
}

/**
 * Body of a request up to a size; it is read piece by piece, so that no more than the limit is ever held.
 * @throws BadRequest 413 beyond it
 */
export async function bodyUpTo(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = () => new BadRequest(413, `The request is larger than ${most} bytes.`);
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > most) {
      await reader.cancel();
      throw tooLarge();
    }
    parts.push(value);
  }
  const out = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/** JSON body that fits a schema. */
export async function jsonBody<T>(request: Request, schema: Joi.Schema<T>, most = 65536): Promise<T> {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(await bodyUpTo(request, most)));
  } catch (error) {
    if (error instanceof BadRequest) throw error;
    throw new BadRequest(400, 'The request is not JSON.');
  }
  const checked = schema.validate(value, { convert: false, presence: 'required' });
  if (checked.error) throw new BadRequest(400, `The request does not fit: ${checked.error.message}.`);
  return checked.value;
}

export function letterOf(value: string | undefined): string {
  const { memories } = SKERRY;
  const letter = memories.find((l) => l === value);
  if (!letter) throw new BadRequest(400, `Memories are ${memories[0]} to ${memories.at(-1)}.`);
  return letter;
}
