import { ActionIcon, Button, NativeSelect, TextInput } from '@mantine/core';
import type { Microphone, Pointing, Project } from '@pebble-hall/core/project';
import { IconTrash } from '../../../icons';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { splOffsetDb } from '../../../services/theRig';
import type { Change } from '../../../services/changeProject';
import { calibrationAdvice, POINTINGS } from './calibrationAdvice';

/** The microphones of this rig; the chosen one measures. */
export function MicrophoneList({
  project,
  change,
  busy,
}: {
  project: Project;
  change: Change;
  busy: boolean;
}) {
  const { microphones, microphoneId, loopbackInput } = project.rig;
  const setAll = (label: string, next: Microphone[], id = microphoneId) =>
    void change(label, (p) => {
      const there = (one: string) => next.some((m) => m.id === one);
      return {
        ...p,
        rig: {
          ...p.rig,
          microphones: next,
          microphoneId: id,
          alongIds: p.rig.alongIds.filter((a) => a !== id && there(a)),
          pairs: p.rig.pairs.filter(
            (pair) => there(pair.earId) && there(pair.floorId) && pair.floorId !== id,
          ),
        },
      };
    });
  const set = (id: string, next: Partial<Microphone>, label: string) =>
    setAll(
      label,
      microphones.map((m) => (m.id === id ? { ...m, ...next } : m)),
    );
  const add = () => {
    const taken = new Set([loopbackInput, ...microphones.map((m) => m.input)]);
    let input = 1;
    while (taken.has(input)) input++;
    const id = crypto.randomUUID();
    const fresh: Microphone = {
      id,
      make: 'Siskin M1',
      serial: '',
      pointing: 'at the source',
      input,
      gainDb: 0,
      calibrationIds: [],
      calibrationId: null,
      levels: [],
    };
    setAll('another microphone', [...microphones, fresh], id);
  };
  const isUsed = (id: string) => project.sweeps.some((s) => s.microphoneId === id);
  return (
    <section className="notes" aria-label="Microphones">
      {microphones.map((m) => {
        const files = m.calibrationIds.flatMap((id) => project.calibrations[id] ?? []);
        const advice = calibrationAdvice(m, files);
        const isChosen = m.id === microphoneId;
        return (
          <div
            key={m.id}
            className="card"
            role="group"
            aria-label={`${m.make} ${m.serial}`}
            style={{ flexShrink: 0, gap: 5, borderColor: isChosen ? 'var(--ink)' : undefined }}
          >
            <div className="row">
              <button
                className="linkish"
                style={{ color: 'var(--ink)', textDecoration: isChosen ? 'none' : 'underline' }}
                aria-pressed={isChosen}
                disabled={busy}
                onClick={() => setAll(`${m.make} ${m.serial} measures`, microphones, m.id)}
              >
                {m.make || 'Microphone'} {m.serial}
              </button>
              <small className="quiet">{partOf(project, m.id)}</small>
              <span style={{ flex: 1 }} />
              {microphones.length > 1 && !isUsed(m.id) ? (
                <ActionIcon
                  size="sm"
                  variant="default"
                  aria-label={`Remove ${m.make} ${m.serial}`}
                  onClick={() => {
                    const rest = microphones.filter((other) => other.id !== m.id);
                    setAll('microphone removed', rest, isChosen ? rest[0]!.id : microphoneId);
                  }}
                >
                  <IconTrash size={13} />
                </ActionIcon>
              ) : null}
            </div>
            {isChosen ? (
              <>
                <div style={{ display: 'flex', gap: 6 }}>
                  <Words
                    label="Make"
                    value={m.make}
                    onChange={(make) => set(m.id, { make }, `make ${make}`)}
                  />
                  <Words
                    label="Serial"
                    value={m.serial}
                    onChange={(serial) => set(m.id, { serial }, `serial ${serial}`)}
                  />
                </div>
                <div className="row">
                  <span>It points</span>
                  <NativeSelect
                    size="xs"
                    w={206}
                    aria-label="It points"
                    data={POINTINGS}
                    value={m.pointing}
                    onChange={(e) =>
                      set(
                        m.id,
                        { pointing: e.currentTarget.value as Pointing },
                        `microphone ${e.currentTarget.value}`,
                      )
                    }
                  />
                </div>
                <div className="row">
                  <span>On input</span>
                  <NumberField
                    label="On input"
                    value={m.input}
                    unit=""
                    digits={0}
                    min={1}
                    max={64}
                    step={1}
                    width={52}
                    onChange={(input) => set(m.id, { input }, `microphone on input ${input}`)}
                  />
                  <span>gain set there</span>
                  <NumberField
                    label="Gain of the input"
                    value={m.gainDb}
                    unit="dB"
                    min={-60}
                    max={100}
                    step={1}
                    width={84}
                    onChange={(gainDb) => set(m.id, { gainDb }, `input gain ${gainDb} dB`)}
                  />
                </div>
                <span className="quiet">{sensitivityText(project, files)}</span>
              </>
            ) : null}
            {isChosen && advice ? <span className="attention">{advice}</span> : null}
            {isChosen && loopbackInput === m.input ? (
              <span className="attention">
                Input {m.input} is the loopback’s: microphone and loopback cannot share one.
              </span>
            ) : null}
          </div>
        );
      })}
      <Button size="compact-sm" variant="default" onClick={add} style={{ alignSelf: 'start' }}>
        Add a microphone
      </Button>
    </section>
  );
}

function sensitivityText(project: Project, files: { sensitivityDb: number | null }[]): string {
  const stated = files.find((f) => f.sensitivityDb !== null)?.sensitivityDb;
  const offset = splOffsetDb(project);
  const said =
    stated === null || stated === undefined
      ? 'Sensitivity not stated'
      : `Sensitivity ${stated} dB re 1 V/Pa by its file`;
  return offset === null
    ? `${said}; levels are relative until it is calibrated.`
    : `${said}; full scale is ${offset.toFixed(1)} dB by the calibrator.`;
}

function Words({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const settle = () => {
    if (draft !== null && draft.trim() !== value) onChange(draft.trim().slice(0, 60));
    setDraft(null);
  };
  return (
    <TextInput
      size="xs"
      style={{ flex: 1 }}
      aria-label={label}
      placeholder={label}
      value={draft ?? value}
      onChange={(e) => setDraft(e.currentTarget.value)}
      onBlur={settle}
      onKeyDown={(e) => e.key === 'Enter' && settle()}
    />
  );
}

/** What a microphone does; the round gives the parts. */
function partOf({ rig }: Project, id: string): string {
  if (id === rig.microphoneId) return 'measures';
  if (rig.pairs.some((p) => p.floorId === id)) return 'on the floor';
  return rig.alongIds.includes(id) ? 'walks along' : 'not in use';
}
