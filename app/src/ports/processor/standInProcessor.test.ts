import { crc32 } from '@pebble-hall/core/formats';
import { plainOutput } from '@pebble-hall/core/processing';
import { packFilters } from '@pebble-hall/stand-ins/processor';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { isAbort } from '../abort';
import { StandInProcessor } from './standInProcessor';

const processor = new StandInProcessor();

type Answer = (path: string, init: RequestInit) => Response | Promise<Response>;
const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });
let asked: { path: string; init: RequestInit }[] = [];
const answering = (answer: Answer) =>
  vi.stubGlobal('fetch', async (url: string, init: RequestInit = {}) => {
    const path = url.replace('/api/processor', '');
    asked.push({ path, init });
    return answer(path, init);
  });

beforeEach(() => void (asked = []));
afterEach(() => vi.unstubAllGlobals());

describe('what goes wrong', () => {
  it('is told in the words of the processor', async () => {
    answering(() => json({ problem: 'Memory B is being written by another transfer.' }, 409));
    await expect(processor.state()).rejects.toThrow('Memory B is being written by another transfer.');
  });

  it('without words of its own, by the number of the answer', async () => {
    answering(() => new Response('<html>', { status: 502 }));
    await expect(processor.state()).rejects.toThrow('The processor answered 502.');
  });

  it('on the way there, with what to do', async () => {
    answering(() => Promise.reject(new TypeError('Failed to fetch')));
    await expect(processor.state()).rejects.toThrow(/cannot be reached\. Check that the server is running/);
  });

  it('a cancelled call is no failure', async () => {
    const cancel = new AbortController();
    answering(() => {
      cancel.abort();
      return Promise.reject(new DOMException('', 'AbortError'));
    });
    const request = {
      letter: 'B',
      name: '',
      outputs: [plainOutput()],
      filters: [new Float32Array(0)],
    } as const;
    const stopped = await processor
      .beginTransfer(
        { ...request, outputs: [...request.outputs], filters: [...request.filters] },
        cancel.signal,
      )
      .catch((e: unknown) => e);
    expect(isAbort(stopped)).toBe(true);
  });
});

describe('a transfer', () => {
  const filters = [Float32Array.from({ length: 100 }, (_, i) => i / 100), new Float32Array(0)];
  const bytes = packFilters(filters);
  const chunkBytes = 64;
  /** A processor that has so many bytes already. */
  const taking = (received: number) =>
    answering((path, init) => {
      if (init.method === 'PUT') return json({});
      if (path.endsWith('/complete')) return json({ letter: 'B', checksum: 7 });
      return json({ received, chunkBytes });
    });
  const sent = () => asked.filter((a) => a.init.method === 'PUT');

  it('goes in chunks with an offset and a checksum each, then is completed', async () => {
    taking(0);
    const shares: number[] = [];
    await processor.sendTransfer('t1', filters, (share) => shares.push(share));
    expect(sent()).toHaveLength(Math.ceil(bytes.length / chunkBytes));
    const back = new Uint8Array(sent().flatMap((a) => [...(a.init.body as Uint8Array)]));
    expect(back).toEqual(bytes);
    sent().forEach(({ path, init }, i) =>
      expect(path).toBe(`/transfers/t1?offset=${i * chunkBytes}&crc=${crc32(init.body as Uint8Array)}`),
    );
    expect(shares.at(-1)).toBe(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(asked.at(-1)!.path).toBe('/transfers/t1/complete');
  });

  it('that broke goes on from what is there already', async () => {
    taking(3 * chunkBytes);
    await processor.sendTransfer('t1', filters, () => {});
    expect(sent()[0]!.path).toContain(`offset=${3 * chunkBytes}&`);
    expect(sent()).toHaveLength(Math.ceil(bytes.length / chunkBytes) - 3);
  });

  it('that is stopped waits: the chunk on its way arrives, nothing is completed', async () => {
    taking(0);
    const stop = new AbortController();
    const stopped = await processor
      .sendTransfer('t1', filters, () => stop.abort(), stop.signal)
      .catch((e: unknown) => e);
    expect(isAbort(stopped)).toBe(true);
    expect(sent()).toHaveLength(1);
    expect(asked.some((a) => a.path.endsWith('/complete'))).toBe(false);
  });
});

describe('a memory', () => {
  const filter = Float32Array.of(1, 0.5, -0.25);
  const outputs = [{ ...plainOutput(), taps: 3 }, plainOutput()];
  const holding = (checksum: number) =>
    answering((path) => {
      if (path.includes('part=filters'))
        return new Response(Uint8Array.from(packFilters([filter, new Float32Array(0)])));
      if (path.startsWith('/memories')) return json({ letter: 'A', name: 'House', checksum, outputs });
      return json({
        active: 'A',
        memories: [
          { letter: 'A', name: 'House', checksum, outputs },
          { letter: 'B', empty: true },
        ],
        transfer: null,
      });
    });

  it('is read back with every output’s own taps', async () => {
    holding(1);
    const { filters, name } = await processor.readMemory('A');
    expect(name).toBe('House');
    expect(filters.map((f) => f.length)).toEqual([3, 0]);
    expect([...filters[0]!]).toEqual([1, 0.5, -0.25]);
  });

  it('that is active is read again only when it has changed', async () => {
    const reads = () => asked.filter((a) => a.path.startsWith('/memories')).length;
    holding(11);
    await processor.activeOutputs();
    const first = reads();
    await processor.activeOutputs();
    expect(reads()).toBe(first);
    holding(12);
    await processor.activeOutputs();
    expect(reads()).toBe(2 * first);
  });
});
