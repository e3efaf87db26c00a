import { Button, Switch, Textarea, TextInput } from '@mantine/core';
import { plainView, type KeptTrace, type Project } from '@pebble-hall/core/project';
import { NumberField } from '../../../parts/NumberField';
import { traceName } from '../../../services/libraryCurves';
import { formulaSentence } from '../../../words/formulaWords';
import { originLines } from '../../../words/traceOrigin';
import { changeTraces } from './changeTraces';

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
  const isPlain = view.gainDb === 0 && view.delayS === 0 && !view.inverted;
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
              disabled={isPlain}
              onClick={() =>
                look('trace seen as it was', { ...plainView(), isShown: view.isShown, colour: view.colour })
              }
            >
              As it was
            </Button>
          </div>
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
