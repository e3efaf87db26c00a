import { plainOutput } from '@pebble-hall/core/processing';
import { ProcessorRefusal, SKERRY } from '@pebble-hall/stand-ins/processor';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { BadRequest, bodyUpTo, guarded, jsonBody, letterOf } from './answers';
import { faultSchema, outputsSchema, recallSchema, transferSchema } from './schemas';

const post = (body: BodyInit) => new Request('http://localhost/x', { method: 'POST', body });
const transfer = () => ({
  letter: 'B',
  name: 'Loft evening',
  outputs: Array.from({ length: SKERRY.outputs }, plainOutput),
  checksum: 7,
});
const refusal = async (body: unknown, schema: Parameters<typeof jsonBody>[1] = transferSchema) =>
  jsonBody(post(JSON.stringify(body)), schema).then(
    () => null,
    (error: BadRequest) => [error.status, error.message] as const,
  );

describe('the body of a request', () => {
  it('is taken as it is when it fits', async () => {
    await expect(jsonBody(post(JSON.stringify(transfer())), transferSchema)).resolves.toEqual(transfer());
  });

  it('is refused with the reason when it is no JSON, or no text at all', async () => {
    await expect(jsonBody(post('{"letter":'), recallSchema)).rejects.toMatchObject({ status: 400 });
    await expect(jsonBody(post(new Uint8Array([0xff, 0xfe])), recallSchema)).rejects.toThrow('not JSON');
  });

  it.each([
    ['a letter beyond F', { letter: 'G' }, /letter/],
    ['a name that is too long', { name: 'x'.repeat(41) }, /name/],
    ['too few outputs', { outputs: [plainOutput()] }, /outputs/],
    ['something that nobody asked for', { more: 1 }, /more/],
    ['a checksum of another kind', { checksum: '7' }, /checksum/],
  ])('is refused for %s', async (_what, change, reason) => {
    const [status, message] = (await refusal({ ...transfer(), ...change }))!;
    expect(status).toBe(400);
    expect(message).toMatch(reason);
  });

  it.each([
    ['a trim 10 times too large', { trimDb: 120 }],
    ['a delay that is no number', { delayMs: null }],
    ['more taps than it holds', { taps: SKERRY.mostTaps + 1 }],
    ['a crossover of no such order', { highPass: { kind: 'Linkwitz-Riley', order: 3, frequency: 80 } }],
    ['a section above half the rate', { sections: [{ kind: 'peak', frequency: 30000, gainDb: 1, q: 1 }] }],
    [
      'more sections than it holds',
      {
        sections: Array.from({ length: SKERRY.mostSections + 1 }, () => ({
          kind: 'peak',
          frequency: 100,
          gainDb: 1,
          q: 1,
        })),
      },
    ],
  ])('is refused for %s', async (_what, change) => {
    const outputs = transfer().outputs.map((o, i) => (i === 3 ? { ...o, ...change } : o));
    expect((await refusal({ ...transfer(), outputs }))?.[0]).toBe(400);
  });

  it('may change some settings of some outputs alone', async () => {
    const changes = [{ output: 2, trimDb: -3 }];
    await expect(jsonBody(post(JSON.stringify({ changes })), outputsSchema)).resolves.toEqual({ changes });
    expect((await refusal({ changes: [{ output: SKERRY.outputs + 1 }] }, outputsSchema))?.[0]).toBe(400);
    expect((await refusal({ breakAtShare: 1.5 }, faultSchema))?.[0]).toBe(400);
  });

  it('is never held beyond its limit, whatever its length was said to be', async () => {
    await expect(bodyUpTo(post(new Uint8Array(100)), 99)).rejects.toMatchObject({ status: 413 });
    expect((await bodyUpTo(post(new Uint8Array(100).fill(3)), 100)).every((v) => v === 3)).toBe(true);
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull: (controller) => {
        sent += 10;
        controller.enqueue(new Uint8Array(10));
      },
    });
    const request = new Request('http://localhost/x', {
      method: 'POST',
      body: endless,
      duplex: 'half',
    } as RequestInit);
    await expect(bodyUpTo(request, 95)).rejects.toMatchObject({ status: 413 });
    expect(sent).toBeLessThan(200);
  });
});

describe('an endpoint', () => {
  afterEach(() => vi.restoreAllMocks());
  const told = async (run: () => Response | Promise<Response>) => {
    const response = await guarded(run);
    return [response.status, ((await response.json()) as { problem: string }).problem] as const;
  };

  it('answers a refusal with its reason and status', async () => {
    const busy = new ProcessorRefusal(409, 'Another transfer is under way.');
    expect(await told(() => Promise.reject(busy))).toEqual([409, 'Another transfer is under way.']);
    expect(await told(() => void letterOf('G') as never)).toEqual([400, 'Memories are A to F.']);
    expect(letterOf('F')).toBe('F');
  });

  it('tells nothing of the inside when it fails', async () => {
    const logged = vi.spyOn(console, 'error').mockImplementation(() => {});
    const [status, problem] = await told(() => {
      throw new TypeError('secret of the inside');
    });
    expect(status).toBe(500);
    expect(problem).not.toContain('secret');
    expect(logged).toHaveBeenCalledOnce();
  });
});
