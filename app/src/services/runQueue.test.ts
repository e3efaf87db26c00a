import type { RoomRun } from '@pebble-hall/core/runs';
import { describe, expect, it } from 'vitest';
import { RunQueue, type RunTask } from './runQueue';

const runOf = (change: Partial<RoomRun> = {}): RoomRun =>
  ({ id: 'r', name: 'Run', groups: 4, sources: [{}], isHeld: false, ...change }) as RoomRun;

/** Hands whose work ends when it is told to. */
function hands(lanes = 2) {
  let now = 0;
  const begun: {
    lane: number;
    task: RunTask;
    done: () => void;
    fail: (e: Error) => void;
    tell: (s: number) => void;
  }[] = [];
  const stopped: number[] = [];
  return {
    begun,
    stopped,
    wait: (ms: number) => void (now += ms),
    of: {
      lanes,
      now: () => now,
      stop: (lane: number) => void stopped.push(lane),
      trace: (lane: number, task: RunTask, tell: (share: number) => void) =>
        new Promise<void>((done, fail) => begun.push({ lane, task, done, fail, tell })),
    },
  };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

describe('a queue of runs', () => {
  it('traces group after group, as many at once as there are lanes, until all are there', async () => {
    const { of, begun } = hands();
    const queue = new RunQueue(of);
    queue.setWorks(true);
    queue.setRuns([runOf()]);
    expect(begun.map(({ task }) => task.group)).toEqual([0, 1]);
    begun[1]!.done();
    await settled();
    begun[0]!.done();
    await settled();
    expect(begun.map(({ task }) => task.group)).toEqual([0, 1, 2, 3]);
    expect(queue.states.getState()['r']).toMatchObject({ groups: [0, 1], share: 0.5, isUnderWay: true });
    begun[2]!.done();
    begun[3]!.done();
    await settled();
    expect(queue.states.getState()['r']).toMatchObject({
      groups: [0, 1, 2, 3],
      share: 1,
      isUnderWay: false,
    });
    expect(begun).toHaveLength(4);
  });

  it('goes on from what is there, and takes what another tab has traced', async () => {
    const { of, begun } = hands(1);
    const queue = new RunQueue(of);
    const there = [0, 1].map((group) => ({ runId: 'r', source: 0, group }));
    queue.setThere(there);
    queue.setRuns([runOf()]);
    // another tab does the work
    expect(begun).toEqual([]);
    expect(queue.states.getState()['r']).toMatchObject({ groups: [0, 1], isUnderWay: false });
    queue.setWorks(true);
    expect(begun.map(({ task }) => task.group)).toEqual([2]);
    queue.setThere([...there, { runId: 'r', source: 0, group: 3 }]);
    begun[0]!.done();
    await settled();
    expect(begun).toHaveLength(1);
    expect(queue.states.getState()['r']).toMatchObject({ share: 1 });
  });

  it('a group counts when all sources have it', async () => {
    const { of, begun } = hands(1);
    const queue = new RunQueue(of);
    queue.setWorks(true);
    queue.setRuns([runOf({ sources: [{}, {}] as RoomRun['sources'] })]);
    begun[0]!.done();
    await settled();
    expect(queue.states.getState()['r']).toMatchObject({ groups: [], share: 1 / 8 });
    begun[1]!.done();
    await settled();
    expect(queue.states.getState()['r']!.groups).toEqual([0]);
  });

  it('stops what is held or gone, and lets the next one in', () => {
    const { of, begun, stopped } = hands(1);
    const queue = new RunQueue(of);
    queue.setWorks(true);
    const second = runOf({ id: 's' });
    queue.setRuns([runOf(), second]);
    expect(begun.map(({ task }) => task.run.id)).toEqual(['r']);
    queue.setRuns([runOf({ isHeld: true }), second]);
    expect(stopped).toEqual([0]);
    expect(begun.map(({ task }) => task.run.id)).toEqual(['r', 's']);
    queue.setRuns([runOf({ isHeld: true })]);
    expect(stopped).toEqual([0, 0]);
    expect(queue.states.getState()['r']).toMatchObject({ isUnderWay: false, groups: [] });
  });

  it('what was stopped brings nothing, even if it ends', async () => {
    const { of, begun } = hands(1);
    const queue = new RunQueue(of);
    queue.setWorks(true);
    queue.setRuns([runOf()]);
    queue.setRuns([runOf({ isHeld: true })]);
    begun[0]!.done();
    await settled();
    expect(queue.states.getState()['r']!.groups).toEqual([]);
  });

  it('tells why a run does not go on, leaves the others alone, and tries again when asked', async () => {
    const { of, begun, stopped } = hands(2);
    const queue = new RunQueue(of);
    queue.setWorks(true);
    queue.setRuns([runOf(), runOf({ id: 's' })]);
    begun[0]!.fail(new Error('No room.'));
    await settled();
    expect(stopped).toEqual([1]);
    expect(queue.states.getState()['r']).toMatchObject({ problem: 'No room.', isUnderWay: false });
    expect(queue.states.getState()['s']).toMatchObject({ problem: null, isUnderWay: true });
    queue.tryAgain('r');
    expect(queue.states.getState()['r']!.problem).toBeNull();
  });

  it('tells how long it takes, by what it has done since it began', async () => {
    const { of, begun, wait } = hands(1);
    const queue = new RunQueue(of);
    queue.setWorks(true);
    queue.setRuns([runOf()]);
    expect(queue.states.getState()['r']!.secondsLeft).toBeNull();
    wait(2000);
    begun[0]!.done();
    await settled();
    expect(queue.states.getState()['r']!.secondsLeft).toBeCloseTo(6, 9);
    wait(1000);
    begun[1]!.tell(0.5);
    expect(queue.states.getState()['r']!.secondsLeft).toBeCloseTo(5, 9);
  });
});
