import { settingChanges } from '@pebble-hall/core/processing';
import {
  variantOf,
  type MemoryLoad,
  type PendingLoad,
  type Project,
  type ProjectArray,
} from '@pebble-hall/core/project';
import {
  memoryChecksum,
  packFilters,
  type MemoryLetter,
  type ProcessorState,
} from '@pebble-hall/stand-ins/processor';
import { useCallback, useEffect, useState } from 'react';
import { baseOutputs } from '../../parts/baseOutputs';
import { processorChanged } from '../../parts/ChainPill';
import { exactFilters, outputsOf, PROCESSOR } from '../../parts/exactFilters';
import { measureSweep, memoryStamp } from '../../parts/measuring';
import { designKey } from '../../parts/progress';
import { exclusively } from '../../parts/running';
import { tell, tellProblem } from '../../parts/tell';
import type { Change } from '../../parts/useChange';
import { verdictKey, verifiedIds, type VerifiedStage } from '../../parts/verified';
import {
  abandonTransfer,
  beginTransfer,
  copyMemory,
  isAbort,
  readMemory,
  readProcessor,
  recallMemory,
  renameMemory,
  sendTransfer,
  setBreakAt,
  setOutputs,
} from '../../rig';
import { repository, sentenceOf } from '../../store';
import { homeVerdict } from './spotVerdicts';

export interface Work {
  what: string;
  share: number;
  /** whether stopping it is a pause that can be gone on from */
  pauses: boolean;
}

/** Loading, reading back, recalling and verifying memories of the processor. */
export function useHandOver(project: Project, change: Change) {
  const [state, setState] = useState<ProcessorState | null>(null);
  const [work, setWork] = useState<Work | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [readBack, setReadBack] = useState<string | null>(null);

  const refresh = useCallback(async () => {
    try {
      setState(await readProcessor());
    } catch (error) {
      setProblem(sentenceOf(error));
    }
    processorChanged();
  }, []);
  useEffect(() => void refresh(), [refresh]);

  const guarded = async (what: string, run: (signal: AbortSignal) => Promise<void>) => {
    setProblem(null);
    setReadBack(null);
    setWork({ what, share: 0, pauses: false });
    try {
      await exclusively(what, run);
    } catch (error) {
      if (isAbort(error)) tell(`${what}: stopped.`);
      else setProblem(`${what}: ${sentenceOf(error)}`);
    } finally {
      setWork(null);
      await refresh();
    }
  };

  /** Sends what is left of a transfer, reads it back, and keeps the load. */
  const finish = async (pending: PendingLoad, filters: Float32Array[], signal: AbortSignal) => {
    const { load, transferId } = pending;
    const letter = load.letter as MemoryLetter;
    await sendTransfer(
      transferId,
      filters,
      (share) =>
        setWork({ what: `Transferring to memory ${letter}`, share: 0.25 + 0.7 * share, pauses: true }),
      signal,
    );
    setWork({ what: `Reading memory ${letter} back`, share: 0.97, pauses: false });
    const got = await readMemory(letter);
    compareFilters(filters, got.filters);
    await change(`loading memory ${letter}`, (p) => ({
      ...p,
      loads: [...p.loads, { ...load, loadedAt: Date.now() }],
      pendingLoad: null,
    }));
    const beside = settingChanges(load.outputs!, got.outputs);
    const counts = Object.keys(load.filters).length;
    const what = `${counts > 0 ? `${counts} filters of ${Math.max(...filters.map((f) => f.length))} taps` : 'sections only'}`;
    setReadBack(
      `Memory ${letter} is loaded and active. Its filters read back exactly as they were sent: ${what}.` +
        (beside.length > 0 ? ' But the processor changed other settings on its own: see below.' : ''),
    );
  };

  const load = (letter: MemoryLetter, name: string, breakHalfWay: boolean) =>
    guarded(`Loading memory ${letter}`, async (signal) => {
      const variant = variantOf(project);
      const { outputs: before } = await baseOutputs(project);
      const made = await exactFilters(
        project,
        variant.correction,
        (done, of) =>
          setWork({ what: `Making filter ${done + 1} of ${of}`, share: (0.25 * done) / of, pauses: false }),
        signal,
      );
      if (made.exact.size === 0)
        throw new Error('there is no correction yet. Measure in the Mic walk first.');
      const { outputs, filters } = await outputsOf(project, variant.correction, made.exact, before);
      const arrays: ProjectArray[] = [];
      const filterIds: Record<string, string> = {};
      for (const [id, { fir }] of made.exact) {
        if (!fir) continue;
        filterIds[id] = crypto.randomUUID();
        arrays.push({ id: filterIds[id], kind: 'filter', rate: PROCESSOR.rate, zero: 0, samples: fir });
      }
      if (breakHalfWay) await setBreakAt(0.5);
      const transferId = await beginTransfer({ letter, name, outputs, filters }, signal);
      const pending: PendingLoad = {
        transferId,
        load: {
          id: crypto.randomUUID(),
          letter,
          name,
          loadedAt: Date.now(),
          checksum: memoryChecksum(outputs, packFilters(filters)),
          filters: filterIds,
          spans: Object.fromEntries([...made.designs.values()].map((d) => [d.id, d.span])),
          outputs,
          before,
          designKey: designKey(project, variant.correction),
          variantId: variant.id,
          variantName: variant.name,
          verdict: null,
        },
      };
      // kept before anything is sent, so that a break or a reload can be gone on from
      if (!(await change(`preparing memory ${letter}`, (p) => ({ ...p, pendingLoad: pending }), arrays))) {
        await abandonTransfer(transferId).catch(() => {});
        throw new Error('the filters could not be stored.');
      }
      await finish(pending, filters, signal);
    });

  const resume = (pending: PendingLoad) =>
    guarded(`Going on with memory ${pending.load.letter}`, async (signal) => {
      await setBreakAt(null).catch(() => {});
      await finish(pending, await filtersOf(project, pending.load), signal);
    });

  const abandon = (pending: PendingLoad | null) =>
    guarded('Giving the transfer up', async () => {
      const transfer = (await readProcessor()).transfer;
      if (transfer) await abandonTransfer(transfer.id);
      await setBreakAt(null).catch(() => {});
      if (pending)
        await change(`giving up the transfer to memory ${pending.load.letter}`, (p) => ({
          ...p,
          pendingLoad: null,
        }));
      setReadBack('The transfer was given up. The memory holds what it held before.');
    });

  const readBackLoad = (last: MemoryLoad) =>
    guarded(`Reading memory ${last.letter} back`, async () => {
      const memory = await readMemory(last.letter as MemoryLetter);
      const sent = await filtersOf(project, last);
      compareFilters(sent, memory.filters);
      const beside = last.outputs ? settingChanges(last.outputs, memory.outputs) : [];
      if (memory.checksum !== last.checksum)
        throw new Error(
          `the filters are as loaded, but ${beside.length} ${beside.length === 1 ? 'setting has' : 'settings have'} changed since: see below.`,
        );
      setReadBack(
        `Memory ${last.letter} still holds exactly what was loaded: ${Object.keys(last.filters).length} filters, settings unchanged.`,
      );
    });

  /** Puts every setting beside the filters back as it was meant to be. */
  const putBack = (last: MemoryLoad) =>
    guarded(`Putting memory ${last.letter} back`, async () => {
      const letter = last.letter as MemoryLetter;
      if ((await readProcessor()).active !== letter) await recallMemory(letter);
      await setOutputs(
        last.outputs!.map(({ sections: _sections, taps: _taps, ...settings }, i) => ({
          output: i + 1,
          ...settings,
        })),
      );
      const left = settingChanges(last.outputs!, (await readMemory(letter)).outputs);
      if (left.length > 0) throw new Error(`${left.length} settings do not stay as they are put.`);
      setReadBack(
        `Memory ${letter} holds all settings as they were meant to be. It is ready to be measured again.`,
      );
    });

  const quick = (run: () => Promise<ProcessorState>) =>
    run()
      .then((s) => {
        setState(s);
        processorChanged();
      })
      .catch((error: unknown) => tellProblem(sentenceOf(error)));
  const recall = (letter: MemoryLetter) => quick(() => recallMemory(letter));
  const rename = (letter: MemoryLetter, name: string) => quick(() => renameMemory(letter, name));
  const copy = (from: MemoryLetter, to: MemoryLetter) => quick(() => copyMemory(from, to));

  const verify = (last: MemoryLoad, spotIds: string[], stage: VerifiedStage) =>
    guarded('Measuring again', async (signal) => {
      const memory = await memoryStamp();
      if (memory.checksum !== last.checksum) {
        throw new Error(
          memory.letter === last.letter
            ? `memory ${memory.letter} does not hold the settings that were loaded. Put them back first.`
            : `memory ${memory.letter} is active, not the one that was loaded into ${last.letter}. Recall memory ${last.letter} first.`,
        );
      }
      const ids = verifiedIds(project, last, stage);
      const takes = spotIds.flatMap((spotId) => ids.map((id) => ({ spotId, id })));
      for (const [i, { spotId, id }] of takes.entries()) {
        const name = project.place.loudspeakers.find((l) => l.id === id)!.name;
        const spot = project.place.spots.find((s) => s.id === spotId)!;
        const step = (share: number) =>
          setWork({ what: `${name} at ${spot.name}`, share: (i + share) / takes.length, pauses: false });
        const { sweep, arrays } = await measureSweep(project, spotId, id, stage, {
          signal,
          onProgress: step,
        });
        const kept = await change(
          `verifying sweep of ${name} at ${spot.name}`,
          (p) => ({
            ...p,
            sweeps: [
              ...p.sweeps.filter(
                (s) =>
                  !(
                    s.stage === stage &&
                    s.spotId === spotId &&
                    s.loudspeakerId === id &&
                    s.memory.checksum === sweep.memory.checksum
                  ),
              ),
              sweep,
            ],
          }),
          arrays,
        );
        if (!kept) throw new Error('the sweep could not be stored.');
      }
      await keepVerdict(last);
    });

  /** What the stone says of the load: kept, since working it out takes longer than drawing the stone may. */
  const keepVerdict = async (last: MemoryLoad) => {
    const now = await repository().open(project.id);
    const measured = now?.loads.find((l) => l.id === last.id);
    if (!now || !measured || measured.verdict?.of === verdictKey(now, measured)) return;
    const verdict = await homeVerdict(now, measured);
    if (!verdict) return;
    await change(`verdict on memory ${last.letter}`, (p) => ({
      ...p,
      loads: p.loads.map((l) => (l.id === last.id ? { ...l, verdict } : l)),
    }));
  };

  return {
    state,
    work,
    problem,
    readBack,
    load,
    resume,
    abandon,
    readBackLoad,
    putBack,
    recall,
    rename,
    copy,
    verify,
  };
}

/** Filters of a load, one per output, from what was kept. */
export async function filtersOf(project: Project, load: MemoryLoad): Promise<Float32Array[]> {
  const outputs = load.outputs?.length ?? 12;
  const filters: Float32Array[] = Array.from({ length: outputs }, () => new Float32Array(0));
  for (const [id, filterId] of Object.entries(load.filters)) {
    const array = await repository().array(filterId);
    const output = project.place.loudspeakers.find((l) => l.id === id)?.output;
    if (!array || !output)
      throw new Error('a filter of this load is no longer in this browser; load the memory again.');
    filters[output - 1] = array.samples;
  }
  return filters;
}

function compareFilters(sent: Float32Array[], got: Float32Array[]): void {
  sent.forEach((filter, i) => {
    const back = got[i]!;
    if (back.length !== filter.length || back.some((v, k) => v !== filter[k]))
      throw new Error(`output ${i + 1} reads back another filter than was sent. Load it again.`);
  });
}
