import { ActionIcon, Button, SegmentedControl } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { IconTrash } from '../../icons';
import { useState } from 'react';
import { changeProject } from '../../services/changeProject';
import { changeStep } from './changeAlign';
import { NewStep } from './NewStep';
import { StepView, type AlignLook } from './StepView';

/** Do these sources add up where it matters? */
export default function AlignWorkbench({ project }: { project: Project }) {
  const { alignSteps: steps } = project;
  const [chosenId, setChosen] = useState(() => (steps.find((s) => !s.isDone) ?? steps.at(-1))?.id ?? null);
  const [isNew, setNew] = useState(false);
  const [look, setLook] = useState<AlignLook>('Curves');
  const step = steps.find((s) => s.id === chosenId) ?? steps.at(-1);
  const needed =
    step && steps.find((s) => s.sources.some((o) => o.of.kind === 'step' && o.of.stepId === step.id));
  return (
    <div className="work" style={{ gridTemplateRows: '34px minmax(0, 1fr) auto', height: '100%' }}>
      <div className="chips" style={{ overflow: 'hidden' }}>
        <div className="chips" role="tablist" aria-label="Steps" style={{ overflow: 'auto' }}>
          {steps.map((s) => (
            <button
              key={s.id}
              role="tab"
              className="chip"
              aria-selected={!isNew && s.id === step?.id}
              style={{ whiteSpace: 'nowrap' }}
              onClick={() => {
                setChosen(s.id);
                setNew(false);
              }}
            >
              {s.name} {s.isDone ? <small>done</small> : null}
            </button>
          ))}
        </div>
        {steps.length > 0 && !isNew ? (
          <Button size="compact-sm" variant="default" style={{ flexShrink: 0 }} onClick={() => setNew(true)}>
            Add a step
          </Button>
        ) : null}
        <span style={{ flex: 1 }} />
        {step && !isNew ? (
          <>
            <SegmentedControl
              aria-label="Look at"
              size="xs"
              data={['Curves', 'Where'] satisfies AlignLook[]}
              value={look}
              onChange={setLook}
            />
            <input
              key={step.id + step.name}
              aria-label="Name of this step"
              className="plain-input"
              defaultValue={step.name}
              maxLength={120}
              style={{ width: 220 }}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim();
                if (name && name !== step.name)
                  void changeStep('step named', step.id, (s) => ({ ...s, name }));
              }}
            />
            <ActionIcon
              variant="default"
              aria-label={`Remove ${step.name}`}
              title={needed ? `${needed.name} rests on it` : 'Remove this step'}
              disabled={Boolean(needed)}
              onClick={() =>
                void changeProject(`${step.name} removed`, (p) => ({
                  ...p,
                  alignSteps: p.alignSteps.filter((s) => s.id !== step.id),
                }))
              }
            >
              <IconTrash size={16} />
            </ActionIcon>
          </>
        ) : null}
      </div>
      {!step || isNew ? (
        <NewStep
          project={project}
          onMade={(id) => {
            setChosen(id);
            setNew(false);
          }}
          onCancel={step ? () => setNew(false) : undefined}
        />
      ) : (
        <StepView key={step.id} project={project} step={step} look={look} />
      )}
    </div>
  );
}
