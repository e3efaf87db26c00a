import { ActionIcon, NativeSelect } from '@mantine/core';
import type { LiveFrame } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { IconEye, IconEyeOff } from '../../icons';
import { signedDb } from '../../charts/chartMath';
import { traceColour } from '../../charts/traceColours';
import { NumberField } from '../../parts/NumberField';
import { changeProject } from '../../services/changeProject';
import { livePairs, microphoneOn } from '../../services/liveSettings';
import { TraceMark } from '../../parts/TraceMark';
import type { LiveView } from './liveView';

interface Props {
  project: Project;
  frame: LiveFrame | null;
  selected: string;
  onSelect: (id: string) => void;
  view: LiveView;
  onView: (change: Partial<LiveView>) => void;
}

const DEFAULT_CROSSOVER_HZ = 300;

/** Microphones on the floor below others: one curve of each pair, with how the floor's was fitted. */
export function PairRows({ project, frame, selected, onSelect, view, onView }: Props) {
  const { measurements } = project.live;
  const pairs = livePairs(project);
  const ear = measurements.find((m) => m.id === selected);
  const earId = ear && microphoneOn(project, ear.input)?.id;
  const taken = new Set(project.rig.pairs.flatMap((p) => [p.earId, p.floorId]));
  const others = measurements.flatMap((m) => {
    const microphone = m.id === selected ? undefined : microphoneOn(project, m.input);
    return microphone && m.reference === ear?.reference && !taken.has(microphone.id)
      ? [{ value: microphone.id, label: m.name }]
      : [];
  });
  const changePairs = (label: string, change: (all: Project['rig']['pairs']) => Project['rig']['pairs']) =>
    void changeProject(label, (p) => ({ ...p, rig: { ...p.rig, pairs: change(p.rig.pairs) } }));
  return (
    <>
      {pairs.map(({ id, name, crossoverHz, earId: earMeasurement }, i) => {
        const isHidden = view.hidden.includes(id);
        const now = frame?.pairs.find((p) => p.id === id);
        const microphoneId = microphoneOn(
          project,
          measurements.find((m) => m.id === earMeasurement)!.input,
        )!.id;
        return (
          <div
            key={id}
            onClick={() => onSelect(id)}
            style={{
              display: 'grid',
              gridTemplateColumns: '16px minmax(0, 1fr) auto 24px',
              columnGap: 6,
              alignItems: 'center',
              padding: '2px 6px 5px',
              borderRadius: 8,
              background: id === selected ? 'var(--stone)' : undefined,
              opacity: isHidden ? 0.55 : 1,
            }}
          >
            <TraceMark colour={traceColour(measurements.length + i)} />
            <button
              type="button"
              className="linkish"
              style={{ textAlign: 'left' }}
              aria-pressed={id === selected}
            >
              {name}
            </button>
            <NumberField
              label={`Crossover of ${name}`}
              value={crossoverHz}
              unit="Hz"
              digits={0}
              min={100}
              max={4000}
              step={50}
              width={84}
              onChange={(hz) =>
                changePairs('crossover between floor and ear', (all) =>
                  all.map((p) => (p.earId === microphoneId ? { ...p, crossoverHz: hz } : p)),
                )
              }
            />
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              aria-label={isHidden ? `Show ${name}` : `Hide ${name}`}
              onClick={(e) => {
                e.stopPropagation();
                onView({ hidden: isHidden ? view.hidden.filter((h) => h !== id) : [...view.hidden, id] });
              }}
            >
              {isHidden ? <IconEyeOff size={15} /> : <IconEye size={15} />}
            </ActionIcon>
            <span />
            <small className="quiet" aria-label={`Fit of ${name}`} style={{ gridColumn: '2 / 5' }}>
              {now
                ? `floor ${signedDb(now.levelDb)} dB, ${(1000 * now.delayS).toFixed(2).replace('-', '\u2212')} ms; ${now.misfitDb.toFixed(1)} dB apart where they meet`
                : 'waits for both microphones'}
              {id === selected ? (
                <>
                  {' '}
                  <button
                    type="button"
                    className="linkish"
                    onClick={(e) => {
                      e.stopPropagation();
                      changePairs('pair undone', (all) => all.filter((p) => p.earId !== microphoneId));
                    }}
                  >
                    Part them
                  </button>
                </>
              ) : null}
            </small>
          </div>
        );
      })}
      {ear && earId && !taken.has(earId) && others.length > 0 ? (
        <NativeSelect
          size="xs"
          aria-label={`On the floor below ${ear.name}`}
          data={[
            { value: '', label: `Nothing on the floor below ${ear.name}` },
            ...others.map((o) => ({ ...o, label: `${o.label} is on the floor below it` })),
          ]}
          value=""
          onChange={(e) => {
            const floorId = e.currentTarget.value;
            if (floorId)
              changePairs('floor and ear paired', (all) => [
                ...all,
                { earId, floorId, crossoverHz: DEFAULT_CROSSOVER_HZ },
              ]);
          }}
        />
      ) : null}
    </>
  );
}
