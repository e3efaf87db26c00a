import { ActionIcon, Button, NativeSelect } from '@mantine/core';
import { MOST_SOURCES, settingOf, isPlain, type AlignStep, type Project } from '@pebble-hall/core/project';
import { IconTrash } from '../../icons';
import { traceColour } from '../../charts/traceColours';
import { settingWords } from '../../words/alignWords';
import { changeStep } from './changeAlign';
import { chosenSource, listed, sourceChoices } from './sourceChoices';

interface Props {
  project: Project;
  step: AlignStep;
  movedId: string;
  onMoved: (id: string) => void;
  /** brings all of them together at once; null while that cannot be */
  joint: { run: () => Promise<void>; busy: boolean } | null;
}

/** The sources of a step: which one is moved, which one is the time reference; one more. */
export function SourceCard({ project, step, movedId, onMoved, joint }: Props) {
  const remove = (id: string) =>
    void changeStep('source removed', step.id, (s) => {
      const sources = s.sources.filter((o) => o.id !== id);
      return { ...s, sources, referenceId: s.referenceId === id ? sources[0]!.id : s.referenceId };
    });
  return (
    <section className="card" aria-label="Sources">
      <h2>
        Sources{' '}
        {joint && step.sources.length > 2 ? (
          <Button
            size="compact-xs"
            variant="default"
            loading={joint.busy}
            title="Delay and polarity of all at once, over all spots"
            onClick={() => void joint.run()}
          >
            All at once
          </Button>
        ) : (
          <small>choose the one to move</small>
        )}
      </h2>
      <div
        style={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr)',
          gap: 2,
          overflow: 'auto',
          minHeight: 0,
        }}
      >
        {step.sources.map((source, i) => (
          <div className="row" key={source.id} style={{ gap: 4 }}>
            <button
              className="chip"
              aria-pressed={source.id === movedId}
              style={{ flex: 1, minWidth: 0, padding: '2px 8px', fontSize: 12.5 }}
              onClick={() => onMoved(source.id)}
            >
              <svg width={14} height={10} aria-hidden="true" style={{ flexShrink: 0 }}>
                <rect y={3} width={14} height={4} rx={2} fill={`var(--${traceColour(i)})`} />
              </svg>
              <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
                {source.name}
              </span>
              <small style={{ marginLeft: 'auto', whiteSpace: 'nowrap' }}>
                {source.id === step.referenceId
                  ? 'time reference'
                  : isPlain(settingOf(source))
                    ? 'as it is'
                    : settingWords({ ...settingOf(source), allPasses: [], highPass: null, lowPass: null })}
              </small>
            </button>
            {step.sources.length > 2 ? (
              <ActionIcon
                size="sm"
                variant="subtle"
                color="gray"
                aria-label={`Without ${source.name}`}
                onClick={() => remove(source.id)}
              >
                <IconTrash size={14} />
              </ActionIcon>
            ) : null}
          </div>
        ))}
      </div>
      {step.sources.length < MOST_SOURCES ? (
        <NativeSelect
          size="xs"
          aria-label="One more source"
          data={[{ value: '', label: 'one more source …' }, ...listed(sourceChoices(project, step.id))]}
          value=""
          onChange={(e) => {
            const source = chosenSource(project, e.currentTarget.value);
            if (source)
              void changeStep(`${source.name} added`, step.id, (s) => ({
                ...s,
                sources: [...s.sources, source],
              }));
          }}
        />
      ) : null}
    </section>
  );
}
