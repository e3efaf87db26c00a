import { noFaults, SimulatedSession } from '@pebble-hall/stand-ins/rig';
import { expect, it } from 'vitest';
import { SESSION_BLOCKS, type SessionBlock } from './rigSession';
import { SessionPump } from './sessionPump';

const RATE = 48_000;
const BLOCK = 1024;

/** A clock that goes when it is told to, and a port that keeps what is posted. */
function pumped(speed: number, answers: boolean) {
  let now = 0;
  const waiting: { at: number; call: () => void }[] = [];
  const blocks: SessionBlock[] = [];
  const port: Pick<MessagePort, 'postMessage' | 'onmessage'> = {
    onmessage: null,
    postMessage: (block: SessionBlock) => {
      blocks.push(block);
      if (answers) port.onmessage!.call(port as MessagePort, { data: { back: block.data } } as MessageEvent);
    },
  };
  const session = new SimulatedSession(BLOCK, [1, 2]);
  session.set([], noFaults());
  new SessionPump(
    session,
    port,
    { inputs: 2, rate: RATE, speed },
    {
      now: () => now,
      later: (ms, call) => void waiting.push({ at: now + ms, call }),
    },
  );
  const until = (ms: number) => {
    for (;;) {
      const next = waiting.sort((a, b) => a.at - b.at)[0];
      if (!next || next.at > ms) break;
      waiting.shift();
      now = Math.max(now, next.at);
      next.call();
    }
    now = ms;
  };
  return { blocks, until };
}

it.each([1, 4])('brings as many frames as the clock allows, %d times as fast as sound', (speed) => {
  const { blocks, until } = pumped(speed, true);
  until(2000);
  const frames = blocks.length * BLOCK;
  expect(Math.abs(frames - 2 * speed * RATE)).toBeLessThanOrEqual(2 * BLOCK);
  expect(blocks.map((b) => b.fromFrame)).toEqual(blocks.map((_, i) => i * BLOCK));
});

it('loses blocks while nobody gives arrays back, and their numbers tell', () => {
  const { blocks, until } = pumped(1, false);
  until(10_000);
  expect(blocks).toHaveLength(SESSION_BLOCKS);
});

it('waits for the listener where it is quicker than sound', () => {
  const { blocks, until } = pumped(4, false);
  until(10_000);
  expect(blocks.at(-1)!.fromFrame).toBe((SESSION_BLOCKS - 1) * BLOCK);
});
