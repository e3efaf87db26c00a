import { Button } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { bringFromShelf, takeOffShelf } from '../../../services/sharedShelf';
import type { SharedTrace } from '../../../store';
import { originLines } from '../../../words/traceOrigin';

/** A trace on the shelf of all projects that this one has not taken in. */
export function SharedCard({ project, shared }: { project: Project; shared: SharedTrace }) {
  const { trace } = shared;
  return (
    <section aria-label="Chosen trace" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>{trace.name}</h2>
      <div className="row" style={{ justifyContent: 'flex-start' }}>
        <Button size="compact-sm" onClick={() => void bringFromShelf(shared)}>
          Bring into this project
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => void takeOffShelf(shared)}>
          Off the shelf
        </Button>
      </div>
      {trace.note ? <span>{trace.note}</span> : null}
      {originLines(project, trace).map((line) => (
        <span key={line} className="quiet" style={{ fontSize: 12.5 }}>
          {line}
        </span>
      ))}
    </section>
  );
}
