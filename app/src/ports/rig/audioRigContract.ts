import { generatorSource } from '@pebble-hall/core/live';
import { inverseRealFft, realFft, whiteNoise } from '@pebble-hall/core/signal';
import { type AudioRig } from './AudioRig';
import { isAbort } from '../abort';
import type { RigSession, SessionAnswer, SessionBlock } from './rigSession';

/** One promise that every rig makes, and how it is tested; `check` throws when it is broken. */
export interface ContractClause {
  name: string;
  check: (rig: AudioRig) => Promise<void>;
}

function must(holds: boolean, what: string): void {
  if (!holds) throw new Error(what);
}

/** The sentence that something fails with. */
async function failure(work: Promise<unknown>): Promise<string> {
  try {
    await work;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
  throw new Error('nothing was refused');
}

const rms = (x: Float32Array) => Math.sqrt(x.reduce((sum, v) => sum + v * v, 0) / x.length);

/** By how many frames a recording lies behind another of the same sound, where the two are most alike. */
function lagBetween(first: Float32Array, second: Float32Array): number {
  const size = 2 ** Math.ceil(Math.log2(2 * first.length));
  const spectrum = ({ length }: Float32Array, samples: Float32Array) =>
    realFft(Float64Array.from({ length: size }, (_, i) => (i < length ? samples[i]! : 0)));
  const [a, b] = [spectrum(first, first), spectrum(second, second)];
  const alike = inverseRealFft({
    re: a.re.map((re, k) => re * b.re[k]! + a.im[k]! * b.im[k]!),
    im: a.re.map((re, k) => re * b.im[k]! - a.im[k]! * b.re[k]!),
  });
  let most = 0;
  alike.forEach((v, i) => {
    if (Math.abs(v) > Math.abs(alike[most]!)) most = i;
  });
  return most > size / 2 ? most - size : most;
}

/** A soft tone with its ends faded. */
const tone = (length: number, rate: number) =>
  Float32Array.from({ length }, (_, i) => {
    const edge = Math.min(1, i / 480, (length - 1 - i) / 480);
    return 0.05 * edge * Math.sin((2 * Math.PI * 440 * i) / rate);
  });

/** The first blocks of a session, with what is done once it has begun. */
/** Blocks of a session until there are enough of them: a busy machine may hear its generator late. */
async function blocksOf(
  rig: AudioRig,
  inputs: number[],
  isEnough: (blocks: SessionBlock[]) => boolean,
  then: (session: RigSession) => void = () => {},
): Promise<SessionBlock[]> {
  const { port1, port2 } = new MessageChannel();
  const blocks: SessionBlock[] = [];
  let lost: Error | null = null;
  let enough = () => {};
  const came = new Promise<void>((resolve) => (enough = resolve));
  port1.onmessage = ({ data }: MessageEvent<SessionBlock>) => {
    blocks.push({ ...data, data: data.data.slice() });
    port1.postMessage({ back: data.data } satisfies SessionAnswer, [data.data.buffer]);
    if (isEnough(blocks)) enough();
  };
  const session = await rig.session({ inputs, port: port2 }, (error) => {
    lost = error;
    enough();
  });
  then(session);
  await came;
  session.stop();
  if (lost) throw lost;
  const number = blocks.length;
  await new Promise((resolve) => setTimeout(resolve, 300));
  must(blocks.length <= number + 4, `${blocks.length - number} blocks came after it was stopped`);
  port1.close();
  return blocks.slice(0, number);
}

/** The contract of the port `AudioRig`; every adapter passes all of it, in a browser. */
export const AUDIO_RIG_CONTRACT: ContractClause[] = [
  {
    name: 'describes itself: a name, a rate, numbered inputs and outputs',
    check: async (rig) => {
      const { name, rate, inputs, outputs, warnings } = await rig.open();
      must(name.length > 0 && rate >= 44100, `name "${name}", rate ${rate}`);
      must(inputs.length >= 2 && outputs.length >= 2, `${inputs.length} inputs, ${outputs.length} outputs`);
      must(
        [...inputs, ...outputs].every((c) => c.number >= 1 && c.name !== ''),
        'a connector has no number or name',
      );
      must(Array.isArray(warnings), 'no list of warnings');
    },
  },
  {
    name: 'plays and records as many frames as asked, on the inputs asked, in their order',
    check: async (rig) => {
      const { rate } = await rig.open();
      const samples = tone(rate / 4, rate);
      const lengthFrames = rate / 2 + 77;
      const request = { signals: [{ output: 1, samples }], lengthFrames };
      const { channels, dropouts, missedBlocks } = await rig.playAndRecord({ ...request, inputs: [1, 2] });
      must(channels.length === 2, `${channels.length} channels`);
      must(
        channels.every((c) => c.length === lengthFrames),
        `lengths ${channels.map((c) => c.length).join()}`,
      );
      must(
        channels.every((c) => c.every(Number.isFinite)),
        'a sample is no number',
      );
      must(missedBlocks === 0 && dropouts >= 0, `${missedBlocks} blocks missed, ${dropouts} dropouts`);
      const swapped = await rig.playAndRecord({ ...request, inputs: [2, 1] });
      const near = (a: Float32Array, b: Float32Array) => Math.abs(20 * Math.log10(rms(a) / rms(b))) < 6;
      must(near(channels[0]!, swapped.channels[1]!), 'input 1 is another one when the order changes');
      must(near(channels[1]!, swapped.channels[0]!), 'input 2 is another one when the order changes');
    },
  },
  {
    name: 'what it records on several inputs is simultaneous, in whatever order they are asked for',
    check: async (rig) => {
      const { rate } = await rig.open();
      const noise = Float32Array.from(whiteNoise(rate / 4, 3), (v) => 0.02 * v);
      const request = { signals: [{ output: 1, samples: noise }], lengthFrames: rate };
      const one = await rig.playAndRecord({ ...request, inputs: [1, 2] });
      const other = await rig.playAndRecord({ ...request, inputs: [2, 1] });
      const lags = [
        lagBetween(one.channels[0]!, one.channels[1]!),
        lagBetween(other.channels[1]!, other.channels[0]!),
      ];
      must(Math.abs(lags[0]! - lags[1]!) <= 1, `input 2 is ${lags.join(' and then ')} frames behind input 1`);
    },
  },
  {
    name: 'records sound, also while nothing is played',
    check: async (rig) => {
      const { rate } = await rig.open();
      const { channels } = await rig.playAndRecord({ signals: [], inputs: [1], lengthFrames: rate / 4 });
      must(rms(channels[0]!) > 0, 'the recording is empty');
    },
  },
  {
    name: 'tells its progress, never backwards, and ends at 1',
    check: async (rig) => {
      const { rate } = await rig.open();
      const shares: number[] = [];
      await rig.playAndRecord(
        { signals: [], inputs: [1], lengthFrames: rate },
        { onProgress: (share) => shares.push(share) },
      );
      must(shares.at(-1) === 1, `the last share is ${shares.at(-1)}`);
      must(
        shares.every((s, i) => s >= 0 && s <= 1 && (i === 0 || s >= shares[i - 1]!)),
        shares.join(),
      );
    },
  },
  {
    name: 'hands out what the first input hears while it records, all of it and in order',
    check: async (rig) => {
      const { rate } = await rig.open();
      const heard = new Float32Array(rate);
      let next = 0;
      const { channels } = await rig.playAndRecord(
        { signals: [{ output: 1, samples: tone(rate / 2, rate) }], inputs: [2, 1], lengthFrames: rate },
        {
          onBlock: (block, fromFrame) => {
            must(fromFrame === next, `a block from frame ${fromFrame} follows frame ${next}`);
            heard.set(block, fromFrame);
            next = fromFrame + block.length;
          },
        },
      );
      must(next === rate, `blocks end at frame ${next} of ${rate}`);
      must(
        heard.every((v, i) => v === channels[0]![i]),
        'the blocks differ from the recording',
      );
    },
  },
  {
    name: 'stops at once when cancelled, and works again afterwards',
    check: async (rig) => {
      const { rate } = await rig.open();
      const controller = new AbortController();
      const samples = tone(5 * rate, rate);
      const began = performance.now();
      const take = rig.playAndRecord(
        { signals: [{ output: 2, samples }], inputs: [1], lengthFrames: samples.length },
        { signal: controller.signal },
      );
      setTimeout(() => controller.abort(), 300);
      const error: unknown = await take.then(
        () => null,
        (e: unknown) => e,
      );
      must(isAbort(error), `ended with ${String(error)}`);
      must(performance.now() - began < 2500, 'it took long to stop');
      const { channels } = await rig.playAndRecord({ signals: [], inputs: [1], lengthFrames: 4800 });
      must(channels[0]!.length === 4800, 'nothing came afterwards');
    },
  },
  {
    name: 'plays nothing when it was cancelled before it began',
    check: async (rig) => {
      const error: unknown = await rig
        .playAndRecord({ signals: [], inputs: [1], lengthFrames: 4800 }, { signal: AbortSignal.abort() })
        .then(
          () => null,
          (e: unknown) => e,
        );
      must(error !== null, 'it was not cancelled');
    },
  },
  {
    name: 'refuses what it has not, and what is louder than full scale, and says so',
    check: async (rig) => {
      const { inputs, outputs } = await rig.open();
      const ask = (output: number, input: number, value: number, lengthFrames = 4800) =>
        failure(
          rig.playAndRecord({
            signals: [{ output, samples: new Float32Array(480).fill(value) }],
            inputs: [input],
            lengthFrames,
          }),
        );
      const sentences = [
        [await ask(outputs.length + 1, 1, 0), `no output ${outputs.length + 1}`],
        [await ask(1, inputs.length + 1, 0), `no input ${inputs.length + 1}`],
        [await ask(0, 1, 0), 'no output 0'],
        [await ask(1, 1, 1.5), 'beyond full scale'],
        [await ask(1, 1, NaN), 'beyond full scale'],
        [await ask(1, 1, 0, 0), 'no length'],
      ] as const;
      for (const [said, expected] of sentences)
        must(said.includes(expected), `"${said}" does not say "${expected}"`);
    },
  },
  {
    name: 'streams blocks of every input asked for until it is stopped',
    check: async (rig) => {
      await rig.open();
      const blocks: Float32Array[][] = [];
      const starts: number[] = [];
      let enough = () => {};
      const ten = new Promise<void>((resolve) => (enough = resolve));
      const { stop } = await rig.stream([1, 2], (block, fromFrame) => {
        starts.push(fromFrame);
        blocks.push(block);
        if (blocks.length === 10) enough();
      });
      await ten;
      stop();
      must(
        blocks.every((b) => b.length === 2 && b[0]!.length === b[1]!.length && b[0]!.length > 0),
        'a block is odd',
      );
      const follow = starts.every(
        (from, i) => i === 0 || from === starts[i - 1]! + blocks[i - 1]![0]!.length,
      );
      must(follow, `blocks begin at ${starts.join()}`);
      const count = blocks.length;
      await new Promise((resolve) => setTimeout(resolve, 400));
      must(blocks.length <= count + 1, `${blocks.length - count} blocks came after it was stopped`);
    },
  },
  {
    name: 'a session streams the inputs and what its generator plays, in order, until it is stopped',
    check: async (rig) => {
      const { rate } = await rig.open();
      const order = {
        source: generatorSource({ kind: 'sine', hz: 440 }, rate),
        gain: 0.05,
        alternateS: null,
      };
      const generator = ({ data }: SessionBlock) => data.subarray((2 * data.length) / 3);
      const isLoud = (block: SessionBlock) => Math.abs(rms(generator(block)) - 0.05) < 0.01;
      const blocks = await blocksOf(
        rig,
        [2, 1],
        (b) => b.length >= 600 || (b.length >= 120 && isLoud(b.at(-1)!)),
        (session) => session.play(order, [1]),
      );
      const follow = blocks.every(
        (b, i) => i === 0 || b.fromFrame === blocks[i - 1]!.fromFrame + blocks[i - 1]!.frames,
      );
      must(follow, `blocks begin at ${blocks.map((b) => b.fromFrame).join()}`);
      must(blocks[0]!.fromFrame === 0, `the first block begins at ${blocks[0]!.fromFrame}`);
      must(
        blocks.every((b) => b.data.length % 3 === 0 && b.data.length >= 3 * b.frames),
        'a block has not two inputs and the generator',
      );
      must(isLoud(blocks.at(-1)!), 'the generator is not as loud as it was set');
      must(rms(blocks.at(-1)!.data.subarray(0, blocks[0]!.frames)) > 0, 'an input is empty');
    },
  },
  {
    name: 'a session refuses inputs and outputs that it has not',
    check: async (rig) => {
      const { inputs, outputs } = await rig.open();
      const { port2 } = new MessageChannel();
      const asked = rig.session({ inputs: [inputs.length + 1], port: port2 }, () => {});
      const said = await failure(asked);
      must(said.includes(`no input ${inputs.length + 1}`), said);
      let refused = '';
      await blocksOf(
        rig,
        [1],
        (b) => b.length >= 4,
        (session) => {
          try {
            session.play({ source: null, gain: 0, alternateS: null }, [outputs.length + 1]);
          } catch (error) {
            refused = String(error);
          }
        },
      );
      must(refused.includes(`no output ${outputs.length + 1}`), `it said "${refused}"`);
    },
  },
  {
    name: 'can be closed and opened again',
    check: async (rig) => {
      await rig.open();
      await rig.close();
      const { rate } = await rig.open();
      const { channels } = await rig.playAndRecord({ signals: [], inputs: [1], lengthFrames: rate / 10 });
      must(channels[0]!.length === rate / 10, 'nothing came after opening it again');
      await rig.close();
    },
  },
];
