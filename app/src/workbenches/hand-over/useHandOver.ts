import type { MemoryLoad, Project, ProjectArray } from '@pebble-hall/core/project';
import type { MemoryLetter, ProcessorState } from '@pebble-hall/stand-ins/processor';
import { useCallback, useEffect, useState } from 'react';
import { processorChanged } from '../../parts/ChainPill';
import { channelRequests, designAll, designWorker, provideTraces, sweepsUsed } from '../../parts/designs';
import { measureSweep, memoryStamp } from '../../parts/measuring';
import { designKey, sweepOf } from '../../parts/progress';
import { exclusively } from '../../parts/running';
import { tell, tellProblem } from '../../parts/tell';
import type { Change } from '../../parts/useChange';
import { isAbort, loadMemory, readMemory, readProcessor, recallMemory, setBreakAt } from '../../rig';
import { repository, sentenceOf } from '../../store';

export interface Work {
  what: string;
  share: number;
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
    setWork({ what, share: 0 });
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

  const load = (letter: MemoryLetter, name: string, breakHalfWay: boolean) =>
    guarded(`Loading memory ${letter}`, async (signal) => {
      const requests = channelRequests(project);
      if (requests.length === 0)
        throw new Error('there is no correction yet. Measure in the Mic walk first.');
      const used = sweepsUsed(project);
      await provideTraces(used, project.calibrations);
      // the correction goes on top of what the processor did while the room was measured
      const base = await readMemory(used[0]!.memory.letter as MemoryLetter);
      if (base.hasFilters || used.some((s) => s.memory.checksum !== base.checksum)) {
        throw new Error(
          `memory ${base.letter} has changed since the sweeps were taken, so the correction no longer fits it. Put it back, or measure again.`,
        );
      }
      const spans = Object.fromEntries([...(await designAll(requests)).values()].map((d) => [d.id, d.span]));
      const outputs = base.outputs.map((o) => ({ ...o }));
      const filters = base.filters.slice();
      const arrays: ProjectArray[] = [];
      const filterIds: Record<string, string> = {};
      const { mostTaps, rate } = await readProcessor();
      for (const [i, request] of requests.entries()) {
        setWork({
          what: `Making filter ${i + 1} of ${requests.length}`,
          share: (0.25 * i) / requests.length,
        });
        const { fir } = await designWorker().call((api) => api.exact(request, mostTaps, rate), signal);
        const output = project.place.loudspeakers.find((l) => l.id === request.id)!.output;
        outputs[output - 1] = { ...outputs[output - 1]!, taps: fir.length };
        filters[output - 1] = fir;
        const id = crypto.randomUUID();
        filterIds[request.id] = id;
        arrays.push({ id, kind: 'filter', rate, zero: 0, samples: fir });
      }
      if (breakHalfWay) await setBreakAt(0.5);
      let summary;
      try {
        summary = await loadMemory(
          { letter, name, outputs, filters },
          (share) => setWork({ what: `Transferring to memory ${letter}`, share: 0.25 + 0.7 * share }),
          signal,
        );
      } finally {
        if (breakHalfWay) await setBreakAt(null).catch(() => {});
      }
      setWork({ what: `Reading memory ${letter} back`, share: 0.97 });
      await compareReadBack(letter, outputs, filters);
      const record: MemoryLoad = {
        id: crypto.randomUUID(),
        letter,
        name,
        loadedAt: Date.now(),
        checksum: summary.checksum,
        filters: filterIds,
        spans,
        designKey: designKey(project),
      };
      await change(`loading memory ${letter}`, (p) => ({ ...p, loads: [...p.loads, record] }), arrays);
      setReadBack(
        `Memory ${letter} is loaded and active. It reads back exactly as it was sent: ${arrays.length} filters of ${mostTaps} taps.`,
      );
    });

  const readBackLoad = (last: MemoryLoad) =>
    guarded(`Reading memory ${last.letter} back`, async () => {
      const memory = await readMemory(last.letter as MemoryLetter);
      const wrong: string[] = [];
      for (const [id, filterId] of Object.entries(last.filters)) {
        const sent = await repository().array(filterId);
        const { output, name } = project.place.loudspeakers.find((l) => l.id === id)!;
        const got = memory.filters[output - 1]!;
        if (!sent || got.length !== sent.samples.length || got.some((v, i) => v !== sent.samples[i]))
          wrong.push(name);
      }
      if (wrong.length > 0)
        throw new Error(
          `the filters of ${wrong.join(', ')} are not those that were loaded. Load the memory again.`,
        );
      if (memory.checksum !== last.checksum)
        throw new Error('the filters are as loaded, but trims, delays or crossovers have changed since.');
      setReadBack(
        `Memory ${last.letter} still holds exactly what was loaded: ${Object.keys(last.filters).length} filters, settings unchanged.`,
      );
    });

  const recall = (letter: MemoryLetter) =>
    recallMemory(letter)
      .then((s) => {
        setState(s);
        processorChanged();
      })
      .catch((error: unknown) => tellProblem(sentenceOf(error)));

  const verify = (last: MemoryLoad) =>
    guarded('Measuring again', async (signal) => {
      const memory = await memoryStamp();
      if (memory.checksum !== last.checksum) {
        throw new Error(
          `memory ${memory.letter} is active, not the one that was loaded into ${last.letter}. Recall memory ${last.letter} first.`,
        );
      }
      const home = project.place.spots[0]!;
      const ids = Object.keys(last.filters);
      for (const [i, id] of ids.entries()) {
        const name = project.place.loudspeakers.find((l) => l.id === id)!.name;
        const step = (share: number) =>
          setWork({ what: `${name} at ${home.name}`, share: (i + share) / ids.length });
        const { sweep, arrays } = await measureSweep(project, home.id, id, 'verified', {
          signal,
          onProgress: step,
        });
        const kept = await change(
          `verifying sweep of ${name}`,
          (p) => ({
            ...p,
            sweeps: [
              ...p.sweeps.filter(
                (s) => !(s.stage === 'verified' && s.spotId === home.id && s.loudspeakerId === id),
              ),
              sweep,
            ],
          }),
          arrays,
        );
        if (!kept) throw new Error('the sweep could not be stored.');
      }
    });

  return { state, work, problem, readBack, load, readBackLoad, recall, verify };
}

async function compareReadBack(
  letter: MemoryLetter,
  outputs: { taps: number }[],
  filters: Float32Array[],
): Promise<void> {
  const got = await readMemory(letter);
  filters.forEach((sent, i) => {
    const back = got.filters[i]!;
    if (back.length !== sent.length || back.some((v, k) => v !== sent[k])) {
      throw new Error(`output ${i + 1} reads back another filter than was sent. Load it again.`);
    }
  });
  if (JSON.stringify(got.outputs) !== JSON.stringify(outputs)) {
    throw new Error(`memory ${letter} reads back other settings than were sent. Load it again.`);
  }
}

/** The verified sweep of a channel that belongs to a load. */
export const verifiedOf = (project: Project, load: MemoryLoad, id: string) => {
  const sweep = sweepOf(project, project.place.spots[0]!.id, id, 'verified');
  return sweep?.memory.checksum === load.checksum ? sweep : undefined;
};
