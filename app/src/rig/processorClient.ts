import { crc32 } from '@pebble-hall/core/formats';
import {
  memoryChecksum,
  packFilters,
  unpackFilters,
  type MemoryLetter,
  type MemorySummary,
  type OutputChange,
  type OutputSettings,
  type ProcessorState,
} from '@pebble-hall/stand-ins/processor';
import { abortError } from './AudioRig';

/** The processor refused or could not be reached; the message is for the user. */
export class ProcessorError extends Error {
  override name = 'ProcessorError';
}

async function call(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    // a stated type tells the server that this is no form from elsewhere
    const headers = {
      'content-type': 'application/octet-stream',
      ...(init?.headers as Record<string, string> | undefined),
    };
    response = await fetch(`/api/processor${path}`, { ...init, headers });
  } catch (error) {
    if (init?.signal?.aborted) throw abortError();
    void error;
    throw new ProcessorError(
      'The processor cannot be reached. Check that the server is running, then try again.',
    );
  }
  if (response.ok) return response;
  const told = (await response.json().catch(() => null)) as { problem?: string } | null;
  throw new ProcessorError(told?.problem ?? `The processor answered ${response.status}.`);
}

const post = (path: string, body?: unknown, signal?: AbortSignal) =>
  call(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body ?? {}),
    signal: signal ?? null,
  });

export const readProcessor = async (): Promise<ProcessorState> =>
  (await call('/')).json() as Promise<ProcessorState>;

export interface MemoryContents extends MemorySummary {
  filters: Float32Array[];
}

/** Reads a memory back, filters and all. */
export async function readMemory(letter: MemoryLetter): Promise<MemoryContents> {
  const summary = (await (await call(`/memories/${letter}`)).json()) as MemorySummary;
  const bytes = new Uint8Array(await (await call(`/memories/${letter}?part=filters`)).arrayBuffer());
  return {
    ...summary,
    filters: unpackFilters(
      bytes,
      summary.outputs.map((o) => o.taps),
    ),
  };
}

export interface ActiveOutputs {
  outputs: OutputSettings[];
  filters: Float32Array[];
}

let last: { key: string; active: ActiveOutputs } | undefined;

/** Settings and filters that are active now; read again only when their checksum has changed. */
export async function readActiveOutputs(): Promise<ActiveOutputs> {
  const state = await readProcessor();
  const summary = activeMemory(state);
  const key = `${summary.letter} ${summary.checksum}`;
  if (last?.key !== key) {
    const { outputs, filters } = await readMemory(summary.letter);
    last = { key, active: { outputs, filters } };
  }
  return last.active;
}

/** Summary of the active memory, which is never empty. */
export function activeMemory(state: ProcessorState): MemorySummary {
  const found = state.memories.find((m) => m.letter === state.active);
  if (!found || 'empty' in found) throw new ProcessorError('The processor has no active memory.');
  return found;
}

export const recallMemory = async (letter: MemoryLetter): Promise<ProcessorState> =>
  (await post('/recall', { letter })).json() as Promise<ProcessorState>;

/** Changes what outputs of the active memory do, at once. */
export const setOutputs = async (changes: OutputChange[]): Promise<ProcessorState> =>
  (await post('/outputs', { changes })).json() as Promise<ProcessorState>;

/** Practice: what somebody left in the processor last year. */
export const leaveSettings = (): Promise<Response> => post('/faults', { leftOver: true });

export const setBreakAt = (breakAtShare: number | null): Promise<Response> =>
  post('/faults', { breakAtShare });

export interface LoadRequest {
  letter: MemoryLetter;
  name: string;
  outputs: OutputSettings[];
  filters: Float32Array[];
}

/** Announces a transfer; the memory stays as it is until the transfer is complete. */
export async function beginTransfer(
  { letter, name, outputs, filters }: LoadRequest,
  signal?: AbortSignal,
): Promise<string> {
  const checksum = memoryChecksum(outputs, packFilters(filters));
  const begun = await post('/transfers', { letter, name, outputs, checksum }, signal);
  return ((await begun.json()) as { id: string }).id;
}

/**
 * Sends what the processor has not yet got of a transfer, in chunks with a checksum each, and completes it. When it stops
 * or breaks, the transfer waits to be gone on with, and the memory keeps what it held.
 */
export async function sendTransfer(
  id: string,
  filters: Float32Array[],
  onProgress: (share: number) => void,
  signal?: AbortSignal,
): Promise<MemorySummary> {
  const bytes = packFilters(filters);
  const { received, chunkBytes } = (await (await call(`/transfers/${id}`)).json()) as {
    received: number;
    chunkBytes: number;
  };
  for (let offset = received; offset < bytes.length; offset += chunkBytes) {
    const part = bytes.slice(offset, offset + chunkBytes);
    if (signal?.aborted) throw abortError();
    // a chunk is not cut off on its way: the processor would have it, and the next one would not fit
    await call(`/transfers/${id}?offset=${offset}&crc=${crc32(part)}`, { method: 'PUT', body: part });
    onProgress((offset + part.length) / bytes.length);
  }
  if (signal?.aborted) throw abortError();
  return (await (await post(`/transfers/${id}/complete`)).json()) as MemorySummary;
}

export const abandonTransfer = async (id: string): Promise<ProcessorState> =>
  (await call(`/transfers/${id}`, { method: 'DELETE' })).json() as Promise<ProcessorState>;

export const renameMemory = async (letter: MemoryLetter, name: string): Promise<ProcessorState> =>
  (
    await call(`/memories/${letter}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name }),
    })
  ).json() as Promise<ProcessorState>;

export const copyMemory = async (letter: MemoryLetter, to: MemoryLetter): Promise<ProcessorState> =>
  (await post(`/memories/${letter}`, { to })).json() as Promise<ProcessorState>;
