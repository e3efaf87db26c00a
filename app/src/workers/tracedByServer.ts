import { textOfBytes, unpackFiles } from '@pebble-hall/core/formats';
import { raysFrom, type TellsRays } from '@pebble-hall/core/project';
import type { RoomRun, RunRays, Sent } from '@pebble-hall/core/runs';

/** Rays of 500 receivers over 4 s. */
const LIMITS = { files: 10, bytes: 2e9 };

/** A group of rays, traced by a thread of the local server. @throws Error with what to do where that cannot be */
export async function tracedByServer(
  run: RoomRun,
  source: number,
  group: number,
  { emission, powerDb, delayS }: Sent,
): Promise<RunRays> {
  const body = JSON.stringify({
    run,
    source,
    group,
    sent: { emission: emission && base64(emission), powerDb, delayS },
  });
  let answer: Response;
  try {
    answer = await fetch('/api/rays', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body,
    });
  } catch {
    throw new Error('The server does not answer. See that it runs, then go on.');
  }
  if (!answer.ok) {
    const told = (await answer.json().catch(() => null)) as { problem?: string } | null;
    throw new Error(told?.problem ?? `The server failed at this (${answer.status}). Go on to try again.`);
  }
  const files = unpackFiles(new Uint8Array(await answer.arrayBuffer()), LIMITS);
  const told = JSON.parse(textOfBytes(files['told.json'] ?? new Uint8Array(0))) as TellsRays;
  return raysFrom(files, told, [run]);
}

function base64(values: Float32Array): string {
  const bytes = new Uint8Array(values.buffer, values.byteOffset, values.byteLength);
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return btoa(text);
}
