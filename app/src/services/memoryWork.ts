import { FILE_MEMORIES, settingChanges, type ProcessorState } from '@pebble-hall/core/processing';
import {
  verdictKey,
  verifiedIds,
  type LoadVerdict,
  type MemoryLoad,
  type PendingLoad,
  type Project,
  type VerifiedStage,
  loudspeakerById,
} from '@pebble-hall/core/project';
import { createStore } from 'zustand/vanilla';
import { isAbort } from '../ports/abort';
import { projectNow, projectOwner, sentenceOf } from '../store';
import { draftLoad } from './draftLoad';
import { filtersOf } from './loadFilters';
import { measureSweep, memoryStamp } from './measuring';
import { notify, notifyProblem } from './notify';
import { outcomeOf, outcomeWords, type PendingOutcome } from './pendingTransfer';
import { processorChanged } from './processorChanged';
import { exclusively } from './running';
import { theProcessor, withInPlace } from './theProcessor';
import { storeMeasured } from './unstored';

export interface Work {
  what: string;
  share: number;
  /** whether stopping it is a pause that can be resumed */
  pauses: boolean;
}

export interface MemoryWork {
  /** what the processor held when it was last read; null before */
  state: ProcessorState | null;
  work: Work | null;
  problem: string | null;
  readBack: string | null;
  /** what became of the transfer that the project waits for, as the processor tells; null while it is not known */
  outcome: PendingOutcome | null;
}

/** Work on the memories of the processor in this tab: it goes on while one looks at another workbench. */
export const memoryWork = createStore<MemoryWork>(() => ({
  state: null,
  work: null,
  problem: null,
  readBack: null,
  outcome: null,
}));
const set = (next: Partial<MemoryWork>) => memoryWork.setState(next);

/** Reads what the processor holds, and what became of a transfer that the project waits for. */
export async function refreshMemories(): Promise<void> {
  try {
    set({ state: await theProcessor().state(), outcome: null });
    const pending = projectNow().pendingLoad;
    if (pending && memoryWork.getState().work === null) {
      const outcome = await askOutcome(pending);
      set({ outcome });
      if (outcome.kind === 'arrived') {
        await keepLoad(pending);
        set({ readBack: outcomeWords(pending.load.letter, outcome) });
      }
    }
  } catch (error) {
    set({ problem: sentenceOf(error) });
  }
  processorChanged();
}

async function guarded(what: string, run: (signal: AbortSignal) => Promise<void>): Promise<void> {
  set({ problem: null, readBack: null, work: { what, share: 0, pauses: false } });
  try {
    await exclusively(what, run);
  } catch (error) {
    if (isAbort(error)) notify(`${what}: stopped.`);
    else set({ problem: `${what}: ${sentenceOf(error)}` });
  } finally {
    set({ work: null });
    await refreshMemories();
  }
}

const askOutcome = async (pending: PendingLoad): Promise<PendingOutcome> =>
  outcomeOf(theProcessor(), pending, await filtersOf(projectNow(), pending.load));

/** A load that the processor holds is kept, once, and nothing waits for it any more. */
const keepLoad = ({ load }: PendingLoad): Promise<void> =>
  projectOwner().change(`loading memory ${load.letter}`, (p) => ({
    ...p,
    loads: p.loads.some((l) => l.id === load.id) ? p.loads : [...p.loads, { ...load, loadedAt: Date.now() }],
    pendingLoad: null,
  }));

/** Sends what is left of a transfer. Where that fails, the processor is asked: the answer alone may have been lost. */
async function send(
  pending: PendingLoad,
  filters: Float32Array[],
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<void> {
  try {
    await theProcessor().sendTransfer(pending.transferId, filters, onProgress, signal);
  } catch (error) {
    const outcome = await outcomeOf(theProcessor(), pending, filters).catch(() => null);
    if (outcome?.kind !== 'arrived') throw error;
  }
}

/** Sends what is left of a transfer, reads it back, and keeps the load. */
async function finish(pending: PendingLoad, filters: Float32Array[], signal: AbortSignal): Promise<void> {
  const { load } = pending;
  const { letter } = load;
  const onProgress = (share: number) =>
    set({ work: { what: `Transferring to memory ${letter}`, share: 0.25 + 0.7 * share, pauses: true } });
  await send(pending, filters, onProgress, signal);
  // the processor holds it from here on: that is kept first, whatever becomes of reading it back
  await keepLoad(pending);
  set({ work: { what: `Reading memory ${letter} back`, share: 0.97, pauses: false } });
  const got = await theProcessor().readMemory(letter);
  compareFilters(filters, got.filters);
  const beside = settingChanges(load.outputs!, got.outputs);
  const count = Object.keys(load.filters).length;
  const what =
    count > 0 ? `${count} filters of ${Math.max(...filters.map((f) => f.length))} taps` : 'sections only';
  set({
    readBack:
      `Memory ${letter} is loaded and active. Its filters read back exactly as they were sent: ${what}.` +
      (beside.length > 0 ? ' But the processor changed other settings on its own: see below.' : ''),
  });
}

/** Makes the filters of the variant that is edited and loads them into a memory. */
export const loadMemory = (letter: string, name: string, breakHalfWay: boolean): Promise<void> =>
  guarded(`Loading memory ${letter}`, async (signal) => {
    const project = projectNow();
    const processor = theProcessor();
    const count = project.place.loudspeakers.filter((l) => l.fitted).length;
    const onProgress = (share: number) => {
      const at = Math.min(count, Math.round(share * count) + 1);
      set({ work: { what: `Making filter ${at} of ${count}`, share: 0.25 * share, pauses: false } });
    };
    const { load: draft, arrays, filters } = await draftLoad(project, { signal, onProgress });
    if (breakHalfWay) await processor.capabilities.practice?.breakTransferAt(0.5);
    const request = { letter, name, outputs: draft.outputs!, filters };
    const transferId = await processor.beginTransfer(request, signal);
    const load = { ...draft, letter, name, loadedAt: Date.now(), checksum: processor.checksumOf(request) };
    const pending: PendingLoad = { transferId, load };
    try {
      // kept before anything is sent, so that a break or a reload can be resumed
      await projectOwner().change(`preparing memory ${letter}`, (p) => ({ ...p, pendingLoad: pending }), {
        arrays,
      });
    } catch (error) {
      await processor.abandonTransfer(transferId).catch(() => {});
      throw error;
    }
    await finish(pending, filters, signal);
  });

/** Makes the filters of the variant that is edited and keeps them as what is in the processor: it was put there by hand, from files. */
export const putInPlace = (): Promise<void> =>
  guarded('Keeping what was handed over', async (signal) => {
    const project = projectNow();
    const onProgress = (share: number) => set({ work: { what: 'Making the filters', share, pauses: false } });
    const { load: draft, arrays, filters } = await draftLoad(project, { signal, onProgress });
    const checksum = theProcessor().checksumOf({ outputs: draft.outputs!, filters });
    const load = {
      ...draft,
      letter: FILE_MEMORIES.placed,
      name: draft.variantName,
      loadedAt: Date.now(),
      checksum,
    };
    await projectOwner().change(
      `${load.name} is in the processor`,
      (p) => withInPlace({ ...p, loads: [...p.loads, load] }, load.id),
      { arrays },
    );
    set({ readBack: `${load.name} counts as in the chain from now on. Measure again to see whether it is.` });
  });

/** The engineer says that nothing of ours is in the processor any more. */
export const takeOut = (): Promise<void> => quick(() => theProcessor().recall(FILE_MEMORIES.without));

/** Whole again, where the link was told to break. */
const mendLink = () =>
  theProcessor()
    .capabilities.practice?.breakTransferAt(null)
    .catch(() => {});

export const resumeLoad = (pending: PendingLoad): Promise<void> =>
  guarded(`Going on with memory ${pending.load.letter}`, async (signal) => {
    await mendLink();
    await finish(pending, await filtersOf(projectNow(), pending.load), signal);
  });

export const abandonLoad = (pending: PendingLoad | null): Promise<void> =>
  guarded('Giving the transfer up', async () => {
    const outcome = pending && (await askOutcome(pending));
    if (pending && outcome?.kind === 'arrived') {
      await keepLoad(pending);
      set({ readBack: `${outcomeWords(pending.load.letter, outcome)} It cannot be given up any more.` });
      return;
    }
    const { transfer } = await theProcessor().state();
    if (transfer) await theProcessor().abandonTransfer(transfer.id);
    await mendLink();
    if (pending)
      await projectOwner().change(`giving up the transfer to memory ${pending.load.letter}`, (p) => ({
        ...p,
        pendingLoad: null,
      }));
    const left = pending && outcome ? ` ${outcomeWords(pending.load.letter, outcome)}` : '';
    set({ readBack: `The transfer was given up.${left}` });
  });

export const readBackLoad = (last: MemoryLoad): Promise<void> =>
  guarded(`Reading memory ${last.letter} back`, async () => {
    const memory = await theProcessor().readMemory(last.letter);
    compareFilters(await filtersOf(projectNow(), last), memory.filters);
    const beside = last.outputs ? settingChanges(last.outputs, memory.outputs) : [];
    if (memory.checksum !== last.checksum)
      throw new Error(
        `the filters are as loaded, but ${beside.length} ${beside.length === 1 ? 'setting has' : 'settings have'} changed since: see below.`,
      );
    set({
      readBack: `Memory ${last.letter} still holds exactly what was loaded: ${Object.keys(last.filters).length} filters, settings unchanged.`,
    });
  });

/** Puts every setting beside the filters back as it was meant to be. */
export const restoreSettings = (last: MemoryLoad): Promise<void> =>
  guarded(`Putting memory ${last.letter} back`, async () => {
    const { letter } = last;
    const processor = theProcessor();
    // its settings belong to its own filters only
    compareFilters(await filtersOf(projectNow(), last), (await processor.readMemory(letter)).filters);
    if ((await processor.state()).active !== letter) await processor.recall(letter);
    await processor.setOutputs(
      last.outputs!.map(({ sections: _sections, taps: _taps, ...settings }, i) => ({
        output: i + 1,
        ...settings,
      })),
    );
    const left = settingChanges(last.outputs!, (await processor.readMemory(letter)).outputs);
    if (left.length > 0) throw new Error(`${left.length} settings do not stay as they are put.`);
    set({
      readBack: `Memory ${letter} holds all settings as they were meant to be. It is ready to be measured again.`,
    });
  });

async function quick(run: () => Promise<ProcessorState>): Promise<void> {
  try {
    set({ state: await run() });
    processorChanged();
  } catch (error) {
    notifyProblem(sentenceOf(error));
  }
}
export const recallMemory = (letter: string) => quick(() => theProcessor().recall(letter));
export const renameMemory = (letter: string, name: string) =>
  quick(() => theProcessor().rename(letter, name));
export const copyMemory = (from: string, to: string) => quick(() => theProcessor().copy(from, to));

/**
 * Measures again what a load was made for.
 * @param judge what the sweeps come to at the home spot; null while something is missing
 */
export const verifyLoad = (
  last: MemoryLoad,
  spotIds: string[],
  stage: VerifiedStage,
  judge: (project: Project, load: MemoryLoad) => Promise<LoadVerdict | null>,
): Promise<void> =>
  guarded('Measuring again', async (signal) => {
    const memory = await memoryStamp();
    if (memory.checksum !== last.checksum) {
      throw new Error(
        memory.letter === last.letter
          ? `memory ${memory.letter} does not hold the settings that were loaded. Put them back first.`
          : `memory ${memory.letter} is active, not the one that was loaded into ${last.letter}. Recall memory ${last.letter} first.`,
      );
    }
    const { place } = projectNow();
    const ids = verifiedIds({ place }, last, stage);
    const takes = spotIds.flatMap((spotId) => ids.map((id) => ({ spotId, id })));
    for (const [i, { spotId, id }] of takes.entries()) {
      const { name } = loudspeakerById(place, id)!;
      const spot = place.spots.find((s) => s.id === spotId)!;
      const what = `${name} at ${spot.name}`;
      const onProgress = (share: number) =>
        set({ work: { what, share: (i + share) / takes.length, pauses: false } });
      const measured = await measureSweep(projectNow(), spotId, id, stage, { signal, onProgress });
      const { sweep, arrays } = measured;
      const isReplaced = (s: typeof sweep) =>
        s.stage === stage &&
        s.spotId === spotId &&
        s.loudspeakerId === id &&
        s.memory.checksum === sweep.memory.checksum;
      const isStored = await storeMeasured(
        `verifying sweep of ${what}`,
        (p) => ({ ...p, sweeps: [...p.sweeps.filter((s) => !isReplaced(s)), sweep] }),
        { arrays },
      );
      if (!isStored) return;
    }
    await keepVerdict(last, judge);
  });

/** What the stone says of the load: kept, since working it out takes longer than drawing the stone may. */
async function keepVerdict(last: MemoryLoad, judge: Parameters<typeof verifyLoad>[3]): Promise<void> {
  const now = projectNow();
  const measured = now.loads.find((l) => l.id === last.id);
  if (!measured || measured.verdict?.of === verdictKey(now, measured)) return;
  const verdict = await judge(now, measured);
  if (!verdict) return;
  await projectOwner().change(`verdict on memory ${last.letter}`, (p) => ({
    ...p,
    loads: p.loads.map((l) => (l.id === last.id ? { ...l, verdict } : l)),
  }));
}

function compareFilters(sent: Float32Array[], got: Float32Array[]): void {
  sent.forEach((filter, i) => {
    const back = got[i]!;
    if (back.length !== filter.length || back.some((v, k) => v !== filter[k]))
      throw new Error(`output ${i + 1} holds another filter than was loaded. Load it again.`);
  });
}
