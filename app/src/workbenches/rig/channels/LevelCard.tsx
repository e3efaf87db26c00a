import { Button, Slider } from '@mantine/core';
import { AIM_DB, weakestBand } from '@pebble-hall/core/measure';
import { type Project, fittedOf } from '@pebble-hall/core/project';
import { useState } from 'react';
import { NumberField } from '../../../parts/NumberField';
import { formatHz } from '../../../charts/chartMath';
import type { Change } from '../../../services/changeProject';

const LOWEST_DBFS = -60;
/** Room for boosts of a correction, and for a room that adds up. */
const HIGHEST_DBFS = -10;

/** The suggestion leaves this in hand over the aim: other spots have dips of their own, and a filter may cut. */
const SPARE_DB = 14;
/** More than this over the aim is louder than it need be. */
const PLENTY_DB = 25;

/** One level for all channels, with a suggestion that brings the weakest third octave of any of them to the aim. */
export function LevelCard({ project, change }: { project: Project; change: Change }) {
  const { levelDbfs, sweepS } = project.rig;
  const [dragged, setDragged] = useState<number | null>(null);
  const set = (value: number) =>
    void change(`test level ${value} dBFS`, (p) => ({
      ...p,
      rig: { ...p.rig, levelDbfs: Math.min(HIGHEST_DBFS, Math.max(LOWEST_DBFS, value)) },
    }));
  const weakest = weakestNow(project);
  const wanted =
    weakest &&
    Math.min(
      HIGHEST_DBFS,
      Math.max(LOWEST_DBFS, Math.ceil(levelDbfs + AIM_DB + SPARE_DB - weakest.marginDb)),
    );
  const isRight =
    weakest && weakest.marginDb >= AIM_DB + SPARE_DB - 1 && weakest.marginDb <= AIM_DB + PLENTY_DB;
  const suggestion = isRight ? levelDbfs : wanted;
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
        <span>{suggestionText(suggestion, levelDbfs, weakest)}</span>
        {suggestion !== null && suggestion !== levelDbfs ? (
          <Button size="compact-sm" variant="light" style={{ flexShrink: 0 }} onClick={() => set(suggestion)}>
            Set {suggestion} dBFS
          </Button>
        ) : null}
      </div>
    </section>
  );
}

interface Weakest {
  name: string;
  centre: number;
  /** at the level that is set now */
  marginDb: number;
}

/** The third octave that stands least above the noise, over all fitted channels that were checked. */
function weakestNow(project: Project): Weakest | null {
  const { checks, levelDbfs } = project.rig;
  let found: Weakest | null = null;
  for (const { id, name } of fittedOf(project)) {
    const check = checks[id];
    const band = check && weakestBand(check.margins, check.verdict.band);
    if (!check || !band || !Number.isFinite(band.marginDb)) continue;
    const marginDb = band.marginDb + levelDbfs - check.levelDbfs;
    if (!found || marginDb < found.marginDb) found = { name, centre: band.centre, marginDb };
  }
  return found;
}

function suggestionText(suggestion: number | null, level: number, weakest: Weakest | null): string {
  if (suggestion === null || !weakest) return 'Check a channel to get a suggestion.';
  const where = `${weakest.name} at ${formatHz(weakest.centre)}`;
  const margin = Math.round(weakest.marginDb);
  if (suggestion === level)
    return `The level is right: even the weakest place, ${where}, has ${margin} dB. Louder brings nothing.`;
  return suggestion > level
    ? `Weakest place: ${where}, ${margin} dB above the noise; ${AIM_DB} dB is the aim, ${SPARE_DB} in hand for dips elsewhere.`
    : `${margin} dB even at the weakest place, ${where}: more than needed.`;
}
