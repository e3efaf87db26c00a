import { Button, Textarea, TextInput } from '@mantine/core';
import { withLook, type KeptTrace, type Project, type SweepLook } from '@pebble-hall/core/project';
import type { LibraryCurve } from '@pebble-hall/core/traces';
import { changeProject } from '../../../services/changeProject';
import { traceName } from '../../../services/libraryCurves';
import { putOnShelf, takeOffShelf } from '../../../services/sharedShelf';
import type { SharedTrace } from '../../../store';
import { formulaSentence } from '../../../words/formulaWords';
import { originLines } from '../../../words/traceOrigin';
import { changeTraces } from './changeTraces';
import { LookFields } from './LookFields';
import { shapesOf, withShapes } from './shapeHandles';

interface Props {
  project: Project;
  trace: KeptTrace;
  /** as it is seen */
  curve: LibraryCurve | null;
  problem: string | null;
  /** the same on the shelf of all projects; absent where it is not there */
  shared: SharedTrace | undefined;
}

/** A text that is settled with Enter or by leaving it. */
const settled = (was: string, settle: (text: string) => void) => ({
  key: was,
  defaultValue: was,
  onKeyDown: (e: React.KeyboardEvent<HTMLInputElement>) => e.key === 'Enter' && e.currentTarget.blur(),
  onBlur: (e: React.FocusEvent<HTMLInputElement | HTMLTextAreaElement>) => {
    const text = e.currentTarget.value.trim();
    if (text !== was) settle(text);
  },
});

/** One trace: its name, where it stands, how it is looked at, and everything known about it. */
export function TraceCard({ project, trace, curve, problem, shared }: Props) {
  const { id, view, origin } = trace;
  const set = (label: string, change: Partial<KeptTrace>) =>
    void changeTraces(label, [id], (k) => ({ ...k, ...change }));
  const look = (label: string, change: Partial<SweepLook>) =>
    void changeProject(label, (p) => withLook(p, id, change));
  const isOfShapes = origin.by === 'computed' && origin.formula.op === 'shapes';
  const tags = trace.tags.join(', ');
  const folders = [...new Set(project.kept.map((k) => k.folder).filter(Boolean))];
  return (
    <section aria-label="Chosen trace" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <TextInput
        size="xs"
        aria-label="Name of the trace"
        maxLength={180}
        {...settled(trace.name, (name) => name !== '' && set(`${trace.name} is now ${name}`, { name }))}
      />
      <div className="row">
        <TextInput
          size="xs"
          aria-label="Folder"
          placeholder="Folder"
          maxLength={100}
          list="library-folders"
          style={{ flex: 1 }}
          {...settled(trace.folder, (folder) => set('folder of a trace', { folder }))}
        />
        <datalist id="library-folders">
          {folders.map((f) => (
            <option key={f} value={f} />
          ))}
        </datalist>
        <TextInput
          size="xs"
          aria-label="Tags"
          placeholder="Tags, by commas"
          maxLength={300}
          style={{ flex: 1 }}
          {...settled(tags, (text) =>
            set('tags of a trace', {
              tags: [
                ...new Set(
                  text
                    .split(',')
                    .map((t) => t.trim())
                    .filter(Boolean),
                ),
              ].slice(0, 50),
            }),
          )}
        />
      </div>
      <Textarea
        size="xs"
        aria-label="Note"
        placeholder="Note"
        rows={2}
        maxLength={2000}
        {...(({ onKeyDown: _, ...rest }) => rest)(
          settled(trace.note, (note) => set('note on a trace', { note })),
        )}
      />
      {trace.kind === 'spectrum' ? null : (
        <>
          <LookFields
            project={project}
            look={view}
            shapes={shapesOf(trace)}
            isOfShapes={isOfShapes}
            onLook={look}
            onShapes={(shapes) => void changeProject('shapes of a trace', (p) => withShapes(p, id, shapes))}
          >
            <Button
              size="compact-xs"
              variant="default"
              onClick={() => void (shared ? takeOffShelf(shared) : putOnShelf(trace, curve))}
            >
              {shared ? 'Off the shelf' : 'To the shelf'}
            </Button>
          </LookFields>
        </>
      )}
      {problem ? <span className="attention">{problem}</span> : null}
      {origin.by === 'computed' ? (
        <span>{formulaSentence(origin.formula, (source) => traceName(project, source))}.</span>
      ) : (
        originLines(project, trace).map((line) => (
          <span key={line} className="quiet" style={{ fontSize: 12.5 }}>
            {line}
          </span>
        ))
      )}
    </section>
  );
}
