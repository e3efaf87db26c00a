import { HEADPHONE_TARGETS } from '@pebble-hall/core/correct';
import { Button, Select } from '@mantine/core';
import { readResponseText, readTargetText, readWav } from '@pebble-hall/core/formats';
import { freeName, type Headphones, type Project } from '@pebble-hall/core/project';
import { HEADPHONE_MODELS, headphoneResponse } from '../../ports/headphones';
import { useRef } from 'react';
import { FilePicker } from '../../parts/FilePicker';
import { NumberField } from '../../parts/NumberField';
import { notifyProblem } from '../../services/notify';
import type { Change } from '../../services/changeProject';
import { sentenceOf } from '../../store';

const MOST_BYTES = 50e6;
const MOST_TARGET_BYTES = 4e6;
const MOST_DB = 120;
const FROM_FILE = 'from a text file';

interface HeadphonesCardProps {
  project: Project;
  change: Change;
  chosen: Headphones | null;
  onChoose: (id: string) => void;
  /** level over frequency of an impulse response */
  responseOf: (samples: Float32Array, rate: number) => Promise<{ frequency: number[]; levelDb: number[] }>;
}

/** Headphones: from the library of made-up models, or from a file of their response; and what they shall sound like. */
export function HeadphonesCard({ project, change, chosen, onChoose, responseOf }: HeadphonesCardProps) {
  const picker = useRef<HTMLInputElement>(null);
  const targetPicker = useRef<HTMLInputElement>(null);
  const add = (name: string, response: { frequency: number[]; levelDb: number[] }) => {
    const id = crypto.randomUUID();
    const ready = HEADPHONE_TARGETS[0]!;
    const made: Headphones = {
      id,
      name: freeName(
        name,
        project.headphones.map((h) => h.name),
      ),
      ...response,
      targetName: ready.name,
      target: ready.target,
      strength: 1,
    };
    void change(`headphones ${made.name}`, (p) => ({ ...p, headphones: [...p.headphones, made] })).then(
      (ok) => ok && onChoose(id),
    );
  };
  const set = (label: string, next: Partial<Headphones>) =>
    void change(`${label} of ${chosen!.name}`, (p) => ({
      ...p,
      headphones: p.headphones.map((h) => (h.id === chosen!.id ? { ...h, ...next } : h)),
    }));
  const read = async (file: File) => {
    try {
      if (file.size > MOST_BYTES) throw new Error('the file is too large for a response.');
      const name = file.name.replace(/\.[^.]+$/, '').slice(0, 80);
      if (/\.wav$/i.test(file.name)) {
        const { rate, channels } = readWav(new Uint8Array(await file.arrayBuffer()));
        return add(name, await responseOf(Float32Array.from(channels[0]!), rate));
      }
      const { frequency, levelDb } = readResponseText(await file.text(), 5);
      const bad = levelDb.findIndex((v) => !(Math.abs(v) <= MOST_DB));
      if (bad >= 0) throw new Error(`the level ${levelDb[bad]} dB at ${frequency[bad]} Hz is out of range.`);
      add(name, { frequency: [...frequency], levelDb: [...levelDb] });
    } catch (error) {
      notifyProblem(`${file.name}: ${sentenceOf(error)}`);
    }
  };
  const readTarget = async (file: File) => {
    try {
      if (file.size > MOST_TARGET_BYTES) throw new Error('the file is too large for a target curve.');
      const found = readTargetText(await file.text());
      set('target', { targetName: (found.name ?? file.name).slice(0, 80), target: found.target });
    } catch (error) {
      notifyProblem(`${file.name}: ${sentenceOf(error)}`);
    }
  };
  const known = project.headphones.map((h) => ({ value: h.id, label: h.name }));
  const library = HEADPHONE_MODELS.filter((m) => !project.headphones.some((h) => h.name === m));
  return (
    <>
      <div className="row" style={{ gap: 5 }}>
        <Select
          size="xs"
          style={{ flex: 1 }}
          aria-label="Headphones"
          placeholder="choose"
          data={[...known, ...library.map((m) => ({ value: `library ${m}`, label: `${m} (library)` }))]}
          value={chosen?.id ?? null}
          onChange={(v) => {
            if (!v) return;
            const model = HEADPHONE_MODELS.find((m) => v === `library ${m}`);
            if (model) add(model, headphoneResponse(model));
            else onChoose(v);
          }}
        />
        <Button size="compact-sm" variant="default" onClick={() => picker.current?.click()}>
          Import
        </Button>
      </div>
      {chosen ? (
        <div className="row" style={{ gap: 5 }}>
          <Select
            size="xs"
            style={{ flex: 1 }}
            aria-label="Target of the headphones"
            allowDeselect={false}
            data={[...new Set([...HEADPHONE_TARGETS.map((t) => t.name), chosen.targetName, FROM_FILE])]}
            title={HEADPHONE_TARGETS.find((t) => t.name === chosen.targetName)?.about}
            value={chosen.targetName}
            onChange={(v) => {
              if (v === FROM_FILE) return targetPicker.current?.click();
              const ready = HEADPHONE_TARGETS.find((t) => t.name === v);
              if (ready) set('target', { targetName: ready.name, target: ready.target });
            }}
          />
          <NumberField
            label="Strength for the headphones"
            value={Math.round(100 * chosen.strength)}
            unit="%"
            min={0}
            max={100}
            step={5}
            digits={0}
            width={74}
            onChange={(v) => set('strength', { strength: v / 100 })}
          />
        </div>
      ) : null}
      <FilePicker
        label="Target of headphones"
        accept=".txt,.csv,text/plain"
        picker={targetPicker}
        onFile={(file) => void readTarget(file)}
      />
      <FilePicker
        label="Response of headphones"
        accept=".txt,.csv,.wav"
        picker={picker}
        onFile={(file) => void read(file)}
      />
    </>
  );
}
