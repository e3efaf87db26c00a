import { ActionIcon, Button, Switch } from '@mantine/core';
import {
  channelSettings,
  freeName,
  playedDelays,
  settingOf,
  takeAligned,
  variantOf,
  type AlignStep,
  type Project,
} from '@pebble-hall/core/project';
import { IconX } from '@tabler/icons-react';
import { changeProject } from '../../services/changeProject';
import { notify } from '../../services/notify';
import { changeStep } from './changeAlign';

/** What is kept of a step, and where it goes. */
export function KeepCard({ project, step }: { project: Project; step: AlignStep }) {
  const settings = channelSettings(project.alignSteps, step);
  const asksAllPass = step.sources.some((s) => s.allPasses.length > 0);
  const waits = [...playedDelays(step)].filter(([, s]) => s > 0);
  const keep = () =>
    void changeStep('setting kept', step.id, (s) => ({
      ...s,
      kept: [
        ...s.kept,
        {
          id: crypto.randomUUID(),
          name: freeName(
            'Kept',
            s.kept.map((k) => k.name),
          ),
          settings: Object.fromEntries(s.sources.map((o) => [o.id, settingOf(o)])),
        },
      ],
    }));
  const takeOver = async () => {
    let waitsMs = 0;
    const name = freeName(
      step.name,
      project.variants.map((v) => v.name),
    );
    const done = await changeProject(`${step.name} used in Correct`, (p) => {
      const taken = takeAligned(
        p,
        variantOf(p).correction,
        p.alignSteps.find((s) => s.id === step.id)!,
      );
      if (!taken) return p;
      ({ waitsMs } = taken);
      const variant = {
        ...variantOf(p),
        id: crypto.randomUUID(),
        name,
        note: `Levels, delays and polarity from Align: ${step.name}.`,
        madeAt: Date.now(),
        correction: taken.correction,
      };
      return { ...p, variants: [...p.variants, variant], variantId: variant.id };
    });
    if (done)
      notify(
        `Variant ${name} has it${
          project.sweeps.length > 0
            ? ', in Correct under Levels.'
            : ': the level map in Plan shows it. Correct and Hand over take it up once the place is measured.'
        }${waitsMs > 0 ? ` All other channels wait ${waitsMs.toFixed(2)} ms, so that they stay together.` : ''}`,
      );
  };
  return (
    <section className="card" aria-label="Keep and hand on" style={{ overflow: 'auto' }}>
      <h2>Keep and hand on</h2>
      <div className="row">
        <Button size="compact-sm" variant="default" onClick={keep}>
          Keep this setting
        </Button>
        <Switch
          size="xs"
          label="done"
          checked={step.isDone}
          onChange={(e) => {
            const isDone = e.currentTarget.checked;
            void changeStep(isDone ? `${step.name} done` : `${step.name} open again`, step.id, (s) => ({
              ...s,
              isDone,
            }));
          }}
        />
      </div>
      {step.kept.map((kept) => (
        <div className="row" key={kept.id} style={{ gap: 4 }}>
          <input
            aria-label={`Name of ${kept.name}`}
            className="plain-input"
            defaultValue={kept.name}
            key={kept.name}
            style={{ flex: 1, minWidth: 0 }}
            maxLength={80}
            onBlur={(e) => {
              const name = e.currentTarget.value.trim();
              if (name && name !== kept.name)
                void changeStep('setting named', step.id, (s) => ({
                  ...s,
                  kept: s.kept.map((k) => (k.id === kept.id ? { ...k, name } : k)),
                }));
            }}
          />
          <Button
            size="compact-xs"
            variant="default"
            onClick={() =>
              void changeStep(`${kept.name} is back`, step.id, (s) => ({
                ...s,
                sources: s.sources.map((o) => ({ ...o, ...kept.settings[o.id] })),
              }))
            }
          >
            Bring back
          </Button>
          <ActionIcon
            size="sm"
            variant="subtle"
            color="gray"
            aria-label={`Remove ${kept.name}`}
            onClick={() =>
              void changeStep(`${kept.name} removed`, step.id, (s) => ({
                ...s,
                kept: s.kept.filter((k) => k.id !== kept.id),
              }))
            }
          >
            <IconX size={14} />
          </ActionIcon>
        </div>
      ))}
      {settings ? (
        <Button size="compact-sm" style={{ flexShrink: 0 }} onClick={() => void takeOver()}>
          Use in Correct
        </Button>
      ) : null}
      <span className="quiet" style={{ fontSize: 12 }}>
        {waits.length > 0
          ? `To be played: ${step.sources.map((s) => `${s.name} ${(1000 * (playedDelays(step).get(s.id) ?? 0)).toFixed(2)} ms`).join(', ')}. `
          : ''}
        {settings
          ? asksAllPass
            ? 'A new variant gets levels, delays, polarities and crossovers; all-passes have to be set in the processor by hand.'
            : 'A new variant gets these levels, delays, polarities and crossovers.'
          : 'These are no channels of this place: set them in the processor by hand.'}
      </span>
    </section>
  );
}
