import { Button } from '@mantine/core';
import { type Project, loudspeakerOn } from '@pebble-hall/core/project';
import type { OutputChange, OutputSettings, ProcessorState } from '@pebble-hall/core/processing';
import { useEffect, useState } from 'react';
import { processorChanged } from '../../../services/processorChanged';
import { notify, notifyProblem } from '../../../services/notify';
import type { Change } from '../../../services/changeProject';
import { activeMemory } from '../../../ports/processor';
import { theProcessor } from '../../../services/theProcessor';
import { sentenceOf } from '../../../store';
import { readSettings } from './readSettings';

/** What the processor does already: what will add up with a correction, what will be replaced; trims to zero and back. */
export function ProcessorCard({
  project,
  change,
  busy,
}: {
  project: Project;
  change: Change;
  busy: boolean;
}) {
  const [state, setState] = useState<ProcessorState | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    const read = () =>
      theProcessor()
        .state()
        .then((now) => {
          setState(now);
          setProblem(null);
        })
        .catch((error: unknown) => setProblem(sentenceOf(error)));
    void read();
    addEventListener('pebble-hall.processor', read);
    return () => removeEventListener('pebble-hall.processor', read);
  }, []);
  if (problem || !state) {
    return (
      <section className="card" aria-label="Processor">
        <h2>Processor</h2>
        <span className={problem ? 'attention' : 'quiet'}>{problem ?? 'Reading it …'}</span>
      </section>
    );
  }
  if (!theProcessor().capabilities.memories)
    return (
      <section className="card" aria-label="Processor">
        <h2>
          Processor <small>{state.model}</small>
        </h2>
        <span className="quiet">
          Nothing leads to it from here. What it does already is in everything that is measured; what is
          designed goes to it by files, in Hand over. Which one it is, is said in{' '}
          <a className="linkish" href="/plan">
            Plan
          </a>
          .
        </span>
      </section>
    );
  const memory = activeMemory(state);
  const named = (output: number) => loudspeakerOn(project.place, output)?.name ?? `Output ${output}`;
  const { addUp, stay, replaced } = readSettings(memory.outputs, named);
  const before = project.rig.processorBefore;
  const apply = async (changes: OutputChange[], done: string) => {
    try {
      await theProcessor().setOutputs(changes);
      processorChanged();
      notify(done);
    } catch (error) {
      notifyProblem(`The processor was not changed: ${sentenceOf(error)}`);
    }
  };
  const zero = async () => {
    const outputs = memory.outputs.map(keptOf);
    const kept = await change('what the processor held before', (p) => ({
      ...p,
      rig: { ...p.rig, processorBefore: { takenAt: Date.now(), letter: memory.letter, outputs } },
    }));
    if (!kept) return;
    const changes = outputs.map((_, i) => ({ output: i + 1, trimDb: 0, delayMs: 0, inverted: false }));
    await apply(changes, 'Trims, delays and polarity are at zero. What was there is kept, to put back.');
  };
  const putBack = () =>
    before &&
    void apply(
      before.outputs.map((o, i) => ({ output: i + 1, ...o })),
      'The processor is as it was before.',
    );
  return (
    <section className="card" aria-label="Processor" style={{ overflow: 'auto' }}>
      <h2>
        {state.model}{' '}
        <small>
          memory {memory.letter}, {memory.name}
        </small>
      </h2>
      {addUp.length > 0 ? (
        <span className="attention">Adds up with a correction: {addUp.join('; ')}.</span>
      ) : (
        <span>No trims, delays or inverted polarity that would add up with a correction.</span>
      )}
      {stay.length > 0 ? (
        <span className="quiet">Stays and is measured along: {stay.join('; ')}.</span>
      ) : null}
      {replaced.length > 0 ? (
        <span className="attention">Will be replaced: {replaced.join('; ')}.</span>
      ) : null}
      <div style={{ display: 'flex', gap: 8 }}>
        {addUp.length > 0 ? (
          <Button size="compact-sm" variant="light" disabled={busy} onClick={() => void zero()}>
            Set them to zero
          </Button>
        ) : null}
        {before && before.letter === memory.letter && isOther(before.outputs, memory.outputs) ? (
          <Button size="compact-sm" variant="default" disabled={busy} onClick={putBack}>
            Put back what was there
          </Button>
        ) : null}
      </div>
    </section>
  );
}

const keptOf = ({ trimDb, delayMs, inverted, muted }: OutputSettings) => ({
  trimDb,
  delayMs,
  inverted,
  muted,
});

const isOther = (before: ReturnType<typeof keptOf>[], now: OutputSettings[]) =>
  JSON.stringify(before) !== JSON.stringify(now.map(keptOf));
