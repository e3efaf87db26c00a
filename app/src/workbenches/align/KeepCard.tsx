import { ActionIcon, Button, Switch } from '@mantine/core';
import {
  allPassesOffered,
  channelSettings,
  freeName,
  playedDelays,
  settingOf,
  takeAligned,
  variantOf,
  type AlignStep,
  type Correction,
  type Project,
  type Variant,
} from '@pebble-hall/core/project';
import { IconX } from '../../icons';
import { isEqual } from 'es-toolkit';
import { changeProject } from '../../services/changeProject';
import { listenAt, type HeardFrom } from '../../services/heardFrom';
import { notify } from '../../services/notify';
import { theProcessor } from '../../services/theProcessor';
import { changeStep } from './changeAlign';
import { LoadingNow, LoadIntoMemory } from './LoadIntoMemory';

interface Props {
  project: Project;
  step: AlignStep;
  /** what Listen can begin with; null where it is not two channels that were swept */
  heard: HeardFrom | null;
}

/** What is kept of a step, and where it goes. */
export function KeepCard({ project, step, heard }: Props) {
  const settings = channelSettings(project.alignSteps, step);
  const { profile } = theProcessor();
  const turns = [...(settings?.values() ?? [])].flatMap((s) => s.allPasses);
  const knowsThem = allPassesOffered(turns, profile).length === turns.length;
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
  const takeOver = async (): Promise<string | null> => {
    let waitsMs = 0;
    let name = '';
    const done = await changeProject(`${step.name} used in Correct`, (p) => {
      const taken = takeAligned(
        p,
        variantOf(p).correction,
        p.alignSteps.find((s) => s.id === step.id)!,
        profile,
      );
      if (!taken) return p;
      ({ waitsMs } = taken);
      const there = p.variants.find((v) => isEqual(v.correction, taken.correction));
      name = there?.name ?? freeName(step.name, namesOf(p));
      if (there) return { ...p, variantId: there.id };
      const variant = madeOf(p, step, name, taken.correction);
      return { ...p, variants: [...p.variants, variant], variantId: variant.id };
    });
    if (!done) return null;
    notify(
      `Variant ${name} has it${
        project.sweeps.length > 0
          ? ', in Correct under Levels.'
          : ': the level map in Plan shows it. Correct and Hand over take it up once the place is measured.'
      }${waitsMs > 0 ? ` All other channels wait ${waitsMs.toFixed(2)} ms, so that they stay together.` : ''}`,
    );
    return name;
  };
  const hear = async (from: HeardFrom) => {
    const done = await changeProject(`${step.name} to be heard`, (p) => {
      const stored = p.alignSteps.find((s) => s.id === step.id)!;
      return withHeard(p, stored);
    });
    if (done) location.assign(listenAt(from));
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
      {settings ? (
        <div className="row" style={{ flexShrink: 0, gap: 4 }}>
          <Button size="compact-xs" onClick={() => void takeOver()}>
            Use in Correct
          </Button>
          {heard && knowsThem ? (
            <Button
              size="compact-xs"
              variant="default"
              title="This setting and those that are kept, as variants side by side in Listen, with noise of the shared band: matched in loudness, blind if you like"
              onClick={() => void hear(heard)}
            >
              Hear them
            </Button>
          ) : null}
          {project.sweeps.length > 0 ? <LoadIntoMemory project={project} onTake={takeOver} /> : null}
        </div>
      ) : null}
      {settings ? <LoadingNow /> : null}
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
      <span className="quiet" style={{ fontSize: 12 }}>
        {waits.length > 0
          ? `To be played: ${step.sources.map((s) => `${s.name} ${(1000 * (playedDelays(step).get(s.id) ?? 0)).toFixed(2)} ms`).join(', ')}. `
          : ''}
        {settings
          ? `A new variant gets these levels, delays, polarities and crossovers${
              turns.length === 0
                ? '. '
                : knowsThem
                  ? ', and the all-passes as sections. '
                  : `; ${profile.model} knows no such all-passes, so they are left out. `
            }`
          : 'These are no channels of this place: set them in the processor by hand.'}{' '}
        {settings && project.sweeps.length > 0 ? (
          <a className="linkish" href="/hand-over">
            Hand over loads and verifies it.
          </a>
        ) : null}
      </span>
    </section>
  );
}

/** A project with variants of what a step is set to now and of what was kept of it, as far as they are not there yet. */
function withHeard(project: Project, step: AlignStep): Project {
  const kept = step.kept.map((k) => ({
    name: `${step.name}: ${k.name}`,
    set: { ...step, sources: step.sources.map((o) => ({ ...o, ...k.settings[o.id] })) },
  }));
  return [{ name: step.name, set: step }, ...kept].reduce((p, { name, set }) => {
    const taken = takeAligned(p, variantOf(project).correction, set, theProcessor().profile);
    if (!taken || p.variants.some((v) => isEqual(v.correction, taken.correction))) return p;
    const variant = madeOf(project, step, freeName(name.slice(0, 80), namesOf(p)), taken.correction);
    return { ...p, variants: [...p.variants, variant] };
  }, project);
}

const namesOf = ({ variants }: Pick<Project, 'variants'>) => variants.map((v) => v.name);

/** A variant that is as the one edited but for what a step sets. */
const madeOf = (project: Project, step: AlignStep, name: string, correction: Correction): Variant => ({
  ...variantOf(project),
  id: crypto.randomUUID(),
  name,
  note: `Levels, delays and polarity from Align: ${step.name}.`,
  madeAt: Date.now(),
  correction,
});
