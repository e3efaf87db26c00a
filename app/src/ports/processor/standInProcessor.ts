import { crc32 } from '@pebble-hall/core/formats';
import type {
  LoadRequest,
  MemoryContents,
  MemorySummary,
  OutputChange,
  ProcessorState,
} from '@pebble-hall/core/processing';
import {
  memoryChecksum,
  settingsAfterLoad,
  packFilters,
  SKERRY,
  UNIT_HEADER,
  unpackFilters,
} from '@pebble-hall/stand-ins/processor';
import { HOUSE_UNIT } from '@pebble-hall/core/project';
import { abortError } from '../abort';
import { activeMemory, ProcessorError, type ProcessorPort } from './ProcessorPort';

async function call(unit: string, path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    // a stated type tells the server that this is no form from elsewhere
    const headers = {
      'content-type': 'application/octet-stream',
      [UNIT_HEADER]: unit,
      ...(init?.headers as Record<string, string> | undefined),
    };
    response = await fetch(`/api/processor${path}`, { ...init, headers });
  } catch (error) {
    if (init?.signal?.aborted) throw abortError();
    throw new ProcessorError(
      'The processor cannot be reached. Check that the server is running, then try again.',
      { cause: error },
    );
  }
  if (response.ok) return response;
  const told = (await response.json().catch(() => null)) as { problem?: string } | null;
  throw new ProcessorError(told?.problem ?? `The processor answered ${response.status}.`);
}

const stateFrom = async (answer: Promise<Response>) => (await answer).json() as Promise<ProcessorState>;

/** The processor stand-in, which lives in the local server: a client of its endpoints. */
export class StandInProcessor implements ProcessorPort {
  /** @param unit which of the simulated processors: every place has its own */
  constructor(private readonly unit: string = HOUSE_UNIT) {}

  private call = (path: string, init?: RequestInit) => call(this.unit, path, init);
  private withBody = (method: string, path: string, body: unknown = {}, signal?: AbortSignal) =>
    this.call(path, {
      method,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
      signal: signal ?? null,
    });

  readonly profile = SKERRY;
  readonly capabilities = {
    memories: true,
    playsThroughInputs: true,
    practice: {
      breakTransferAt: async (breakAtShare: number | null) =>
        void (await this.withBody('POST', '/faults', { breakAtShare })),
      leaveOldSettings: async () => void (await this.withBody('POST', '/faults', { leftOver: true })),
    },
  };
  private last: { key: string; memory: MemoryContents } | undefined;

  state = (): Promise<ProcessorState> => stateFrom(this.call('/'));

  async readMemory(letter: string): Promise<MemoryContents> {
    const summary = (await (await this.call(`/memories/${letter}`)).json()) as MemorySummary;
    const bytes = new Uint8Array(await (await this.call(`/memories/${letter}?part=filters`)).arrayBuffer());
    const taps = summary.outputs.map((o) => o.taps);
    return { ...summary, filters: unpackFilters(bytes, taps) };
  }

  /** Read again only when the checksum has changed. */
  async activeOutputs(): Promise<MemoryContents> {
    const summary = activeMemory(await this.state());
    const key = `${summary.letter} ${summary.checksum}`;
    if (this.last?.key !== key) this.last = { key, memory: await this.readMemory(summary.letter) };
    return this.last.memory;
  }

  recall = (letter: string) => stateFrom(this.withBody('POST', '/recall', { letter }));
  rename = (letter: string, name: string) =>
    stateFrom(this.withBody('PATCH', `/memories/${letter}`, { name }));
  copy = (from: string, to: string) => stateFrom(this.withBody('POST', `/memories/${from}`, { to }));
  setOutputs = (changes: OutputChange[]) => stateFrom(this.withBody('POST', '/outputs', { changes }));

  async beginTransfer(
    { letter, name, outputs, filters }: LoadRequest,
    signal?: AbortSignal,
  ): Promise<string> {
    const checksum = this.checksumOf({ outputs, filters });
    const begun = await this.withBody('POST', '/transfers', { letter, name, outputs, checksum }, signal);
    return ((await begun.json()) as { id: string }).id;
  }

  /** In chunks with a checksum each. */
  async sendTransfer(
    id: string,
    filters: Float32Array[],
    onProgress: (share: number) => void,
    signal?: AbortSignal,
  ): Promise<MemorySummary> {
    const bytes = packFilters(filters);
    const { received, chunkBytes } = (await (await this.call(`/transfers/${id}`)).json()) as {
      received: number;
      chunkBytes: number;
    };
    for (let offset = received; offset < bytes.length; offset += chunkBytes) {
      const part = bytes.slice(offset, offset + chunkBytes);
      if (signal?.aborted) throw abortError();
      // a chunk is not cut off on its way: the processor would have it, and the next one would not fit
      await this.call(`/transfers/${id}?offset=${offset}&crc=${crc32(part)}`, { method: 'PUT', body: part });
      onProgress((offset + part.length) / bytes.length);
    }
    if (signal?.aborted) throw abortError();
    return (await (await this.withBody('POST', `/transfers/${id}/complete`)).json()) as MemorySummary;
  }

  checksumOf = ({ outputs, filters }: Pick<LoadRequest, 'outputs' | 'filters'>): number =>
    memoryChecksum(outputs, packFilters(filters));

  heldAfterLoad = ({ outputs, filters }: Pick<LoadRequest, 'outputs' | 'filters'>): number[] =>
    [outputs, settingsAfterLoad(outputs)].map((o) => memoryChecksum(o, packFilters(filters)));

  abandonTransfer = (id: string) => stateFrom(this.call(`/transfers/${id}`, { method: 'DELETE' }));
}
