import { NativeSelect } from '@mantine/core';
import { partsTogether, type AlignStep, type Project } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import { NumberField } from '../../parts/NumberField';
import { measureTogether } from '../../services/measureTogether';
import { running } from '../../services/running';
import { LOW } from './AlignPlots';
import { changeStep } from './changeAlign';
import { FROM_LIVE, useTakeLive } from './useTakeLive';

/** What the levels and their sum are held against: a target, and the sum as it was measured. */
export function TargetFields({
  project,
  step,
  spotId,
}: {
  project: Project;
  step: AlignStep;
  /** of the spot that is shown; null where nobody knows where it is */
  spotId: string | null;
}) {
  const { target, togetherId } = step;
  const takeLive = useTakeLive(project);
  const isBusy = useStore(running, (r) => r.controller !== null);
  const sweeps = spotId !== null && !isBusy && partsTogether(project, step) !== null;
  const set = (next: AlignStep['target']) =>
    void changeStep('target', step.id, (s) => ({ ...s, target: next }));
  return (
    <>
      <TraceSelect
        project={project}
        label="Measured together"
        none="not measured yet"
        says="measured: "
        takeLive={takeLive}
        sweeps={sweeps ? () => void measureTogether(step.id, spotId) : null}
        value={togetherId}
        onChange={(id) => void changeStep('measured together', step.id, (s) => ({ ...s, togetherId: id }))}
      />
      <TraceSelect
        project={project}
        label="Target"
        none="no target"
        value={target?.traceId ?? null}
        onChange={(traceId) => set(traceId ? { traceId, toleranceDb: target?.toleranceDb ?? 3 } : null)}
      />
      {target ? (
        <NumberField
          label="Tolerance of the target"
          value={target.toleranceDb}
          unit="dB"
          min={0.5}
          max={20}
          step={0.5}
          width={70}
          onChange={(toleranceDb) => set({ ...target, toleranceDb })}
        />
      ) : null}
    </>
  );
}

/** All channels at once, each as it is set here. */
const BY_SWEEP = { value: 'sweep now', label: 'sweep all at once, now' };

/** One of the kept transfer functions, or none. */
function TraceSelect({
  project,
  label,
  none,
  says = '',
  takeLive = null,
  sweeps = null,
  value,
  onChange,
}: {
  project: Project;
  label: string;
  none: string;
  /** stands before every name */
  says?: string;
  /** keeps what is heard now; null where that is not offered */
  takeLive?: (() => Promise<string | null>) | null;
  /** sweeps all of it at once now; null where that is not offered */
  sweeps?: (() => void) | null;
  value: string | null;
  onChange: (id: string | null) => void;
}) {
  const traces = project.kept.filter((k) => k.kind === 'transfer function');
  return (
    <NativeSelect
      size="xs"
      aria-label={label}
      w={150}
      styles={LOW}
      data={[
        { value: '', label: none },
        ...(takeLive ? [FROM_LIVE] : []),
        ...(sweeps ? [BY_SWEEP] : []),
        ...traces.map((k) => ({ value: k.id, label: `${says}${k.name}` })),
      ]}
      value={value ?? ''}
      onChange={(e) => {
        const chosen = e.currentTarget.value;
        if (chosen === BY_SWEEP.value) return sweeps?.();
        if (chosen !== FROM_LIVE.value) return onChange(chosen || null);
        void takeLive?.().then((id) => id && onChange(id));
      }}
    />
  );
}
