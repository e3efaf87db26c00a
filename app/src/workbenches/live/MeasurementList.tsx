import { ActionIcon, Button } from '@mantine/core';
import { MOST_MEASUREMENTS } from '@pebble-hall/core/live';
import { freeName, type PlannedMeasurement, type Project } from '@pebble-hall/core/project';
import { IconEye, IconEyeOff } from '../../icons';
import { traceColour } from '../../charts/traceColours';
import { withMeasurement } from '../../services/liveSettings';
import { useLiveFrame } from '../../services/useLiveFrame';
import { delayScale } from './delayUnits';
import { changeLive } from './changeLive';
import { TraceMark } from '../../parts/TraceMark';
import { LevelBar } from '../../parts/meters/LevelBar';
import type { LiveView } from './liveView';
import { PairRows } from './PairRows';

interface Props {
  project: Project;
  rate: number;
  selected: string;
  onSelect: (id: string) => void;
  view: LiveView;
  onView: (change: Partial<LiveView>) => void;
}

/** The next input with a microphone that no measurement has yet; else the one after the last. */
function nextInput({ rig, live }: Project): number {
  const used = new Set(live.measurements.map((m) => m.input));
  const free = rig.microphones.find((m) => !used.has(m.input));
  return free?.input ?? live.measurements.at(-1)!.input;
}

/** What is measured: each with its colour, its delay and the level of its input. */
export function MeasurementList({ project, rate, selected, onSelect, view, onView }: Props) {
  const { measurements } = project.live;
  const frame = useLiveFrame();
  const scale = delayScale(view.delayUnit, { rate, temperatureC: project.place.temperatureC });
  const add = () => {
    const last = measurements.at(-1)!;
    const id = crypto.randomUUID();
    const name = freeName(
      'Microphone',
      measurements.map((m) => m.name),
    );
    const next: PlannedMeasurement = { ...last, id, name, input: nextInput(project), isTracked: false };
    void changeLive('measurement added', (live) => ({ ...live, measurements: [...live.measurements, next] }));
    onSelect(id);
  };
  return (
    <section aria-label="Measurements" style={{ display: 'flex', flexDirection: 'column', gap: 6 }}>
      <h2>
        Measurements
        <Button
          size="compact-xs"
          variant="default"
          disabled={measurements.length >= MOST_MEASUREMENTS}
          onClick={add}
        >
          Add
        </Button>
      </h2>
      {measurements.map((m, i) => {
        const now = frame?.measured.find((f) => f.id === m.id);
        const isHidden = view.hidden.includes(m.id);
        const toggled = isHidden ? view.hidden.filter((h) => h !== m.id) : [...view.hidden, m.id];
        const delayS = m.isTracked && now ? now.delayS : m.delayS;
        return (
          <div
            key={m.id}
            onClick={() => onSelect(m.id)}
            style={{
              display: 'grid',
              gridTemplateColumns: '16px minmax(0, 1fr) auto 24px',
              columnGap: 6,
              alignItems: 'center',
              padding: '2px 6px 5px',
              borderRadius: 8,
              background: m.id === selected ? 'var(--stone)' : undefined,
              opacity: isHidden ? 0.55 : 1,
            }}
          >
            <TraceMark colour={traceColour(i)} />
            <input
              className="plain-input"
              style={{ width: '100%', fontWeight: 600 }}
              aria-label={`Name of measurement ${i + 1}`}
              defaultValue={m.name}
              key={m.name}
              maxLength={60}
              onFocus={() => onSelect(m.id)}
              onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
              onBlur={(e) => {
                const name = e.currentTarget.value.trim();
                if (name === '') e.currentTarget.value = m.name;
                else if (name !== m.name)
                  void changeLive(`${m.name} is now ${name}`, (live) =>
                    withMeasurement(live, m.id, { name }),
                  );
              }}
            />
            <span className="mono" style={{ fontSize: 12.5 }} aria-label={`Delay of ${m.name}`}>
              {(delayS * scale.perSecond).toFixed(Math.min(2, scale.digits))} {view.delayUnit}
              {m.isTracked ? ', followed' : ''}
            </span>
            <ActionIcon
              size="sm"
              variant="subtle"
              color="gray"
              aria-label={isHidden ? `Show ${m.name}` : `Hide ${m.name}`}
              onClick={(e) => {
                e.stopPropagation();
                onView({ hidden: toggled });
              }}
            >
              {isHidden ? <IconEyeOff size={15} /> : <IconEye size={15} />}
            </ActionIcon>
            <span />
            <div style={{ gridColumn: '2 / 5' }}>
              <LevelBar
                level={frame?.inputs.find((l) => l.input === m.input)}
                label={`Level of input ${m.input}, ${m.name}`}
              />
            </div>
          </div>
        );
      })}
      <PairRows
        project={project}
        frame={frame}
        selected={selected}
        onSelect={onSelect}
        view={view}
        onView={onView}
      />
    </section>
  );
}
