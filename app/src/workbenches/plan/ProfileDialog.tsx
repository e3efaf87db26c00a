import { Button, Checkbox, Modal, MultiSelect, TextInput } from '@mantine/core';
import { CROSSOVER_KINDS, SECTION_KINDS, CROSSOVER_ORDERS, type CrossoverKind } from '@pebble-hall/core/path';
import type { ProcessorProfile } from '@pebble-hall/core/processing';
import { processorProfile } from '@pebble-hall/core/project';
import { useRef, useState } from 'react';
import { FilePicker } from '../../parts/FilePicker';
import { NumberField } from '../../parts/NumberField';
import { saveFile } from '../../services/saveFile';
import type { OwnProfiles } from './useProfiles';

interface ProfileDialogProps {
  begin: ProcessorProfile;
  own: OwnProfiles;
  onUse: (profile: ProcessorProfile) => void;
  onClose: () => void;
}

type NumberKey = {
  [K in keyof ProcessorProfile]: ProcessorProfile[K] extends number ? K : never;
}[keyof ProcessorProfile];
type Field = [
  key: NumberKey,
  label: string,
  unit: string,
  min: number,
  max: number,
  step: number,
  digits: number,
];

const GROUPS: { title: string; fields: Field[] }[] = [
  {
    title: 'Outputs and filters',
    fields: [
      ['outputs', 'Outputs', '', 1, 64, 1, 0],
      ['rate', 'Sample rate', 'Hz', 8000, 768_000, 1000, 0],
      ['mostTaps', 'FIR taps per output', '', 0, 1_048_576, 256, 0],
      ['mostSections', 'Sections per output', '', 0, 64, 1, 0],
      ['latencyMs', 'Latency', 'ms', 0, 10_000, 0.1, 2],
    ],
  },
  {
    title: 'Sections',
    fields: [
      ['leastSectionDb', 'Largest cut', 'dB', -200, 0, 1, 1],
      ['mostSectionDb', 'Largest boost', 'dB', 0, 200, 1, 1],
      ['gainStepDb', 'Step of gain', 'dB', 0.0001, 100, 0.1, 3],
      ['frequencyStepHz', 'Step of frequency', 'Hz', 0.0001, 100, 0.1, 3],
      ['leastQ', 'Least Q', '', 0.01, 100, 0.1, 2],
      ['mostQ', 'Most Q', '', 0.01, 1000, 1, 2],
      ['qStep', 'Step of Q', '', 0.0001, 100, 0.01, 3],
    ],
  },
  {
    title: 'Trims and delays',
    fields: [
      ['leastTrimDb', 'Lowest trim', 'dB', -200, 0, 1, 1],
      ['mostTrimDb', 'Highest trim', 'dB', 0, 200, 1, 1],
      ['trimStepDb', 'Step of trim', 'dB', 0.0001, 100, 0.1, 3],
      ['mostDelayMs', 'Longest delay', 'ms', 0, 600_000, 10, 1],
      ['delayStepMs', 'Step of delay', 'ms', 0.0001, 100, 0.01, 4],
    ],
  },
];
const MOST_BYTES = 100_000;

/** A profile of one's own: made from another, saved for all projects, exported and opened as a file. */
export function ProfileDialog({ begin, own, onUse, onClose }: ProfileDialogProps) {
  const [profile, setProfile] = useState<ProcessorProfile>({
    ...begin,
    model: `${begin.model}, mine`,
    memories: [],
  });
  const [problem, setProblem] = useState<string | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const set = (next: Partial<ProcessorProfile>) => {
    setProfile({ ...profile, ...next });
    setProblem(null);
  };
  const checked = (): ProcessorProfile | null => {
    const { value, error } = processorProfile.validate(profile);
    setProblem(error ? `Not a profile: ${error.message}.` : null);
    return error ? null : value;
  };
  const use = async () => {
    const good = checked();
    if (!good) return;
    await own.put(good);
    onUse(good);
  };
  const save = () => {
    const good = checked();
    if (good)
      saveFile(
        `${good.model.replace(/[^\p{L}\p{N}]+/gu, '-')}.profile.json`,
        JSON.stringify(good, null, 2),
        'application/json',
      );
  };
  const openFile = async (file: File) => {
    try {
      if (file.size > MOST_BYTES) throw new Error('it is too large for one.');
      const { value, error } = processorProfile.validate(JSON.parse(await file.text()));
      if (error) throw new Error(`${error.message}.`);
      setProfile({ ...value, memories: [] });
      setProblem(null);
    } catch (error) {
      const why =
        error instanceof SyntaxError ? 'it is no JSON.' : error instanceof Error ? error.message : '';
      setProblem(`${file.name} is no profile: ${why}`);
    }
  };
  const shapes = CROSSOVER_KINDS.flatMap((kind) =>
    CROSSOVER_ORDERS[kind].map((order) => `${kind} ${6 * order} dB/oct`),
  );
  const chosen = CROSSOVER_KINDS.flatMap((kind) =>
    (profile.crossovers[kind] ?? []).map((order) => `${kind} ${6 * order} dB/oct`),
  );
  const withShapes = (list: string[]) => {
    const crossovers: Partial<Record<CrossoverKind, number[]>> = {};
    for (const kind of CROSSOVER_KINDS)
      crossovers[kind] = CROSSOVER_ORDERS[kind].filter((order) =>
        list.includes(`${kind} ${6 * order} dB/oct`),
      );
    set({ crossovers });
  };
  return (
    <Modal opened onClose={onClose} title="A processor by its profile" size={760} centered>
      <div style={{ display: 'grid', gap: 12, fontSize: 13 }}>
        <TextInput
          label="Name"
          size="xs"
          maxLength={60}
          value={profile.model}
          onChange={(e) => set({ model: e.currentTarget.value })}
        />
        <div style={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 18 }}>
          {GROUPS.map(({ title, fields }) => (
            <div key={title} style={{ display: 'grid', gap: 5, alignContent: 'start' }}>
              <b>{title}</b>
              {fields.map(([key, label, unit, min, max, step, digits]) => (
                <div className="row" key={key}>
                  <span>{label}</span>
                  <NumberField
                    label={label}
                    value={profile[key]}
                    unit={unit}
                    min={min}
                    max={max}
                    step={step}
                    digits={digits}
                    width={92}
                    onChange={(v) => set({ [key]: v })}
                  />
                </div>
              ))}
            </div>
          ))}
        </div>
        <Checkbox.Group
          label="Kinds of sections"
          size="xs"
          value={[...profile.sectionKinds]}
          onChange={(list) => set({ sectionKinds: SECTION_KINDS.filter((k) => list.includes(k)) })}
        >
          <div style={{ display: 'flex', gap: 16, marginTop: 4 }}>
            {SECTION_KINDS.map((k) => (
              <Checkbox key={k} size="xs" value={k} label={k} />
            ))}
          </div>
        </Checkbox.Group>
        <Checkbox
          size="xs"
          label="bass management"
          checked={profile.bassManagement}
          onChange={(e) => set({ bassManagement: e.currentTarget.checked })}
        />
        <MultiSelect
          label="Crossovers"
          size="xs"
          data={shapes}
          value={chosen}
          onChange={withShapes}
          comboboxProps={{ withinPortal: true }}
        />
        {problem ? (
          <span role="alert" className="attention">
            {problem}
          </span>
        ) : null}
        <div style={{ display: 'flex', gap: 8 }}>
          <Button size="compact-md" onClick={() => void use()}>
            Save and use it
          </Button>
          <Button size="compact-md" variant="default" onClick={save}>
            Export
          </Button>
          <Button size="compact-md" variant="default" onClick={() => picker.current?.click()}>
            Open a file
          </Button>
          <span style={{ flex: 1 }} />
          {own.list.some((p) => p.model === begin.model) ? (
            <Button size="compact-md" variant="default" onClick={() => void own.remove(begin.model)}>
              Remove {begin.model}
            </Button>
          ) : null}
        </div>
        <FilePicker
          label="Profile file"
          accept=".json"
          picker={picker}
          onFile={(file) => void openFile(file)}
        />
      </div>
    </Modal>
  );
}
