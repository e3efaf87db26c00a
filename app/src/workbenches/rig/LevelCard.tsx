import { Button, Slider } from '@mantine/core';
import { AIM_DB } from '@pebble-hall/core/measure';
import type { Project } from '@pebble-hall/core/project';
import { useEffect, useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import { fittedOf, marginNow } from '../../parts/progress';
import type { Change } from '../../parts/useChange';

const LOWEST_DBFS = -60;
/** Room for boosts of a correction, and for a room that adds up. */
const HIGHEST_DBFS = -10;

/** The suggestion leaves this much over the aim, so that one seat's dip does not fall short of it. */
const SPARE_DB = 6;
/** More than this over the aim is louder than it need be. */
const PLENTY_DB = 20;

/** One level for all channels, with a suggestion that brings the quietest of them to the aim. */
export function LevelCard({ project, change }: { project: Project; change: Change }) {
  const { levelDbfs, sweepS } = project.rig;
  const [level, setLevel] = useState(levelDbfs);
  useEffect(() => setLevel(levelDbfs), [levelDbfs]);
  const set = (value: number) =>
    void change(`test level ${value} dBFS`, (p) => ({
      ...p,
      rig: { ...p.rig, levelDbfs: Math.min(HIGHEST_DBFS, Math.max(LOWEST_DBFS, value)) },
    }));
  const margins = fittedOf(project)
    .map((l) => marginNow(project, l.id))
    .filter((m): m is number => m !== null && Number.isFinite(m));
  const least = Math.min(...margins);
  const isRight = least >= AIM_DB && least <= AIM_DB + PLENTY_DB;
  const wanted = Math.min(HIGHEST_DBFS, Math.ceil(levelDbfs + AIM_DB + SPARE_DB - least));
  const suggestion = margins.length === 0 ? null : isRight ? levelDbfs : wanted;
  return (
    <section className="card" aria-label="Test level">
      <h2>
        Test level <small>the same on every channel</small>
      </h2>
      <div style={{ display: 'flex', gap: 12, alignItems: 'center' }}>
        <Slider
          style={{ flex: 1 }}
          aria-label="Test level slider"
          min={LOWEST_DBFS}
          max={HIGHEST_DBFS}
          step={1}
          value={level}
          label={null}
          onChange={setLevel}
          onChangeEnd={set}
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
        <span>{suggestionText(suggestion, levelDbfs, least)}</span>
        {suggestion !== null && suggestion !== levelDbfs ? (
          <Button size="compact-sm" variant="light" onClick={() => set(suggestion)}>
            Set {suggestion} dBFS
          </Button>
        ) : null}
      </div>
    </section>
  );
}

function suggestionText(suggestion: number | null, level: number, least: number): string {
  if (suggestion === null) return 'Check a channel to get a suggestion.';
  if (suggestion === level)
    return `Right: the quietest channel has ${Math.round(least)} dB, and it need not be louder.`;
  return suggestion > level
    ? `The quietest channel has ${Math.round(least)} dB of the ${AIM_DB} to aim for.`
    : `${Math.round(least)} dB on the quietest channel is more than needed.`;
}
