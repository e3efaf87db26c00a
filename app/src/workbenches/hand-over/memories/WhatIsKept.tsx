import { fittedOf, type MemoryLoad, type Project } from '@pebble-hall/core/project';
import { theProcessor } from '../../../services/theProcessor';

/** What the processor holds by its profile, and what was handed over to it so far. */
export function WhatIsKept({
  project,
  shownId,
  onShow,
}: {
  project: Project;
  shownId: string | null;
  onShow: (load: MemoryLoad) => void;
}) {
  const { profile } = theProcessor();
  const { model, outputs, rate, mostTaps, mostSections } = profile;
  const inPlaceId = project.processor.adapter === 'files only' ? project.processor.inPlaceId : null;
  const holds = [
    mostTaps > 0 ? `FIR up to ${mostTaps} taps` : null,
    mostSections > 0 ? `${mostSections} sections` : null,
  ].filter((t) => t !== null);
  return (
    <section className="card" aria-label="Handed over" style={{ overflow: 'auto' }}>
      <h2>
        Handed over by files{' '}
        <small>
          {fittedOf(project).length} of {outputs} outputs in use
        </small>
      </h2>
      <span className="quiet">
        {model}: {holds.join(' and ')} for each output at {rate / 1000} kHz.
      </span>
      {project.loads.length === 0 ? <span className="quiet">Nothing was handed over yet.</span> : null}
      {project.loads.toReversed().map((l) => (
        <div className="row" key={l.id}>
          <button className="chip" aria-pressed={l.id === shownId} onClick={() => onShow(l)}>
            {l.name || l.variantName}
            <small>{new Date(l.loadedAt).toLocaleString()}</small>
          </button>
          <span>{l.id === inPlaceId ? 'in place' : ''}</span>
        </div>
      ))}
    </section>
  );
}
