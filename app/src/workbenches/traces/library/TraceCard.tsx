import { Button, NativeSelect, Switch, Textarea, TextInput } from '@mantine/core';
import {
  LINE_STYLES,
  plainView,
  SMOOTHINGS,
  type KeptTrace,
  type LineStyle,
  type Project,
  type Smoothing,
} from '@pebble-hall/core/project';
import { isEqual } from 'es-toolkit';
import { TRACE_COLOURS } from '../../../charts/traceColours';
import { NumberField } from '../../../parts/NumberField';
import { traceName } from '../../../services/libraryCurves';
import { formulaSentence } from '../../../words/formulaWords';
import { originLines } from '../../../words/traceOrigin';
import { changeTraces } from './changeTraces';
import { SHELF } from './libraryRows';
import { ShapeFields } from './ShapeFields';
import { shapesOf, withShapes } from './shapeHandles';
import { WindowFields } from './WindowFields';

interface Props {
  project: Project;
  trace: KeptTrace;
  problem: string | null;
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
export function TraceCard({ project, trace, problem }: Props) {
  const { id, view, origin } = trace;
  const set = (label: string, change: Partial<KeptTrace>) =>
    void changeTraces(label, [id], (k) => ({ ...k, ...change }));
  const look = (label: string, change: Partial<KeptTrace['view']>) =>
    set(label, { view: { ...view, ...change } });
  const { isShown, colour, line } = view;
  const isPlain = isEqual(view, { ...plainView(), isShown, colour, line });
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
          <div className="row">
            Seen
            <NumberField
              label="Gain of the trace"
              value={view.gainDb}
              unit="dB"
              min={-60}
              max={60}
              step={0.5}
              width={76}
              onChange={(gainDb) => look('gain of a trace', { gainDb })}
            />
            <NumberField
              label="Delay of the trace"
              value={1000 * view.delayS}
              unit="ms"
              digits={3}
              min={-4000}
              max={4000}
              step={0.1}
              width={92}
              onChange={(ms) => look('delay of a trace', { delayS: ms / 1000 })}
            />
          </div>
          <div className="row">
            <Switch
              size="xs"
              label="inverted"
              checked={view.inverted}
              onChange={(e) => look('polarity of a trace', { inverted: e.currentTarget.checked })}
            />
            <Button
              size="compact-xs"
              variant="default"
              disabled={trace.folder === SHELF}
              onClick={() => set('trace put on the shelf', { folder: SHELF })}
            >
              To the shelf
            </Button>
            <Button
              size="compact-xs"
              variant="default"
              disabled={isPlain}
              onClick={() =>
                look('trace seen as it was', {
                  ...plainView(),
                  isShown,
                  colour,
                  line,
                })
              }
            >
              As it was
            </Button>
          </div>
          <div className="row" style={{ gap: 4 }}>
            <NativeSelect
              size="xs"
              aria-label="Colour of the trace"
              style={{ flex: 1 }}
              data={[
                { value: '', label: 'next colour' },
                ...TRACE_COLOURS.map((c) => ({ value: c, label: c.replace('trace-', '') })),
              ]}
              value={view.colour ?? ''}
              onChange={(e) => look('colour of a trace', { colour: e.currentTarget.value || null })}
            />
            <NativeSelect
              size="xs"
              aria-label="Line of the trace"
              data={[...LINE_STYLES]}
              value={view.line}
              onChange={(e) => look('line of a trace', { line: e.currentTarget.value as LineStyle })}
            />
            <NativeSelect
              size="xs"
              aria-label="Smoothing of the trace"
              data={[
                { value: '', label: 'as all' },
                ...SMOOTHINGS.map((n) => ({ value: String(n), label: `1/${n} oct` })),
              ]}
              value={view.smoothing === null ? '' : String(view.smoothing)}
              onChange={(e) =>
                look('smoothing of a trace', {
                  smoothing:
                    e.currentTarget.value === '' ? null : (Number(e.currentTarget.value) as Smoothing),
                })
              }
            />
          </div>
          <WindowFields project={project} view={view} onLook={look} />
          <details open={isOfShapes || view.shapes.length > 0}>
            <summary style={{ cursor: 'pointer' }}>
              {isOfShapes ? 'Its shapes' : view.shapes.length > 0 ? 'Behind shapes' : 'Put it behind shapes'}
            </summary>
            <ShapeFields
              shapes={shapesOf(trace)}
              mayBeEmpty={!isOfShapes}
              onChange={(shapes) =>
                void changeTraces('shapes of a trace', [id], (k) => withShapes(k, shapes))
              }
            />
          </details>
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
