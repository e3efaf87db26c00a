import { Button, Slider } from '@mantine/core';
import { AIM_DB } from '@pebble-hall/core/measure';
import {
  HIGHEST_DBFS,
  levelAdvice,
  LOWEST_DBFS,
  SPARE_DB,
  type LevelAdvice,
  type Project,
} from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { formatHz } from '../../../charts/chartMath';
import type { Change } from '../../../services/changeProject';

/** One level for all channels, with a suggestion that brings the weakest third octave of any of them to the aim. */
export function LevelCard({ project, change }: { project: Project; change: Change }) {
  const { levelDbfs, sweepS } = project.rig;
  const [dragged, setDragged] = useState<number | null>(null);
  const set = (value: number) =>
    void change(`test level ${value} dBFS`, (p) => ({
      ...p,
      rig: { ...p.rig, levelDbfs: Math.min(HIGHEST_DBFS, Math.max(LOWEST_DBFS, value)) },
    }));
  const advice = levelAdvice(project);
  const suggestion = advice?.suggestedDbfs ?? null;
  return (
    <section className="card" aria-label="Test level">
      <h2>
        Test level <small>the same on every channel</small>
      </h2>
      <div style={{ display: 'flex', gap: 12, alignItems: 'center' }}>
        <Slider
          style={{ flex: 1 }}
          thumbLabel="Test level slider"
          min={LOWEST_DBFS}
          max={HIGHEST_DBFS}
          step={1}
          value={dragged ?? levelDbfs}
          label={null}
          onChange={setDragged}
          onChangeEnd={(value) => {
            set(value);
            setDragged(null);
          }}
        />
        <NumberField
          label="Test level"
          value={levelDbfs}
          unit="dBFS"
          min={LOWEST_DBFS}
          max={HIGHEST_DBFS}
          step={1}
          digits={0}
          onChange={set}
        />
      </div>
      <div className="row">
        <span>Sweep</span>
        <NumberField
          label="Sweep length"
          value={sweepS}
          unit="s"
          min={0.7}
          max={20}
          step={0.5}
          onChange={(value) =>
            void change(`sweep of ${value} s`, (p) => ({ ...p, rig: { ...p.rig, sweepS: value } }))
          }
        />
      </div>
      <div className="row">
        <span>{suggestionText(levelDbfs, advice)}</span>
        {suggestion !== null && suggestion !== levelDbfs ? (
          <Button size="compact-sm" variant="light" style={{ flexShrink: 0 }} onClick={() => set(suggestion)}>
            Set {suggestion} dBFS
          </Button>
        ) : null}
      </div>
    </section>
  );
}

function suggestionText(level: number, advice: LevelAdvice | null): string {
  if (!advice) return 'Check a channel to get a suggestion.';
  const { weakest, suggestedDbfs, clipped } = advice;
  if (clipped)
    return `The input clipped at ${clipped.levelDbfs} dBFS, checking ${clipped.name}: play softer, or turn the microphone’s gain down.`;
  const where = `${weakest.name} at ${formatHz(weakest.centre)}`;
  if (!Number.isFinite(weakest.snrDb))
    return `Nothing arrived of ${where}: see to its cable before its level.`;
  const margin = Math.round(weakest.snrDb);
  if (suggestedDbfs === level)
    return margin >= AIM_DB + SPARE_DB - 1
      ? `The level is right: even the weakest place, ${where}, has ${margin} dB. Louder brings nothing.`
      : `The weakest place, ${where}, has ${margin} dB, and it cannot be louder: use longer sweeps, or wait until it is quieter.`;
  return suggestedDbfs > level
    ? `Weakest place: ${where}, ${margin} dB above the noise; ${AIM_DB} dB is the aim, ${SPARE_DB} to spare for dips elsewhere.`
    : `${margin} dB even at the weakest place, ${where}: more than needed.`;
}
