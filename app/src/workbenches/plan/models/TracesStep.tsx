import { Button, Checkbox, Select } from '@mantine/core';
import { sweepsUsed, traceRef } from '@pebble-hall/core/jobs';
import { seenFrom, type SeenAt } from '@pebble-hall/core/loudspeakers';
import type { Loudspeaker, Project, Sweep } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { useMemo, useState } from 'react';
import { lengthText } from '../../../drawing';
import { NumberField } from '../../../parts/NumberField';
import { runJob } from '../../../services/jobs';
import { sentenceOf } from '../../../store';
import type { Candidate } from './candidate';

interface TracesStepProps {
  project: Project;
  loudspeaker: Loudspeaker;
  onCandidate: (candidate: Candidate | null) => void;
}

interface Row extends SeenAt {
  sweep: Sweep;
  spot: string;
  isUsed: boolean;
}

const WINDOW_MS = 5;
const round = (v: number) => Math.round(v * 10) / 10;

/** Sweeps of a channel with where their spots lie, seen from it; of a spot with several the last one. */
function rowsOf(project: Project, channel: Loudspeaker): Row[] {
  const own = sweepsUsed(project).filter((s) => s.loudspeakerId === channel.id);
  const last = new Map(own.map((s) => [s.spotId, s]));
  return [...last.values()]
    .flatMap((sweep) => {
      const spot = project.place.spots.find((s) => s.id === sweep.spotId);
      if (!spot) return [];
      const seen = seenFrom(channel, spot.position);
      return [{ ...seen, angleDeg: round(seen.angleDeg), sweep, spot: spot.name, isUsed: true }];
    })
    .sort((a, b) => a.aboutDeg - b.aboutDeg || a.angleDeg - b.angleDeg);
}

/** A model from what was measured about a loudspeaker: a turntable, or spots around it. */
export function TracesStep({ project, loudspeaker, onCandidate }: TracesStepProps) {
  const { place, calibrations } = project;
  const measured = useMemo(() => {
    const ids = new Set(sweepsUsed(project).map((s) => s.loudspeakerId));
    return place.loudspeakers.filter((l) => ids.has(l.id));
  }, [project, place.loudspeakers]);
  const [channelId, setChannelId] = useState(
    measured.find((l) => l.id === loudspeaker.id)?.id ?? measured[0]?.id ?? null,
  );
  const channel = measured.find((l) => l.id === channelId) ?? null;
  const [changed, setChanged] = useState<Record<string, Partial<Row>>>({});
  const [windowMs, setWindowMs] = useState(WINDOW_MS);
  const [state, setState] = useState<{ busy: boolean; problem: string | null }>({
    busy: false,
    problem: null,
  });
  const rows = (channel ? rowsOf(project, channel) : []).map((r) => ({ ...r, ...changed[r.sweep.id] }));
  const set = (id: string, more: Partial<Row>) =>
    setChanged({ ...changed, [id]: { ...changed[id], ...more } });
  const used = rows.filter((r) => r.isUsed);

  const make = async () => {
    onCandidate(null);
    setState({ busy: true, problem: null });
    try {
      const name = `${channel!.name}, measured`;
      const text = await runJob('coverage.polarTable', {
        name,
        windowS: windowMs / 1000,
        traces: used.map(({ sweep, aboutDeg, angleDeg, distanceM }) => ({
          trace: traceRef(sweep, calibrations, 'impulse'),
          ...{ aboutDeg, angleDeg, distanceM },
        })),
      });
      const file = { name: `${name}.txt`, type: 'text/plain', bytes: new TextEncoder().encode(text) };
      const tried = await runJob('coverage.tried', {
        name: file.name,
        bytes: file.bytes,
        speed: speedOfSound(place.temperatureC),
      });
      const { view, about, notes } = tried;
      onCandidate({
        source: { kind: 'traces', file },
        name,
        ...{ view, about, notes, sensitivityDb: null, largestDb: null, viewLargestDb: 0 },
      });
      setState({ busy: false, problem: null });
    } catch (error) {
      setState({ busy: false, problem: sentenceOf(error) });
    }
  };

  if (measured.length === 0)
    return (
      <p style={{ margin: 0 }}>
        Nothing is measured yet. Take sweeps at spots around the loudspeaker in the Mic walk, one of them on
        its axis; then come back.
      </p>
    );
  return (
    <div style={{ display: 'grid', gap: 8 }}>
      <div className="row" style={{ justifyContent: 'start', alignItems: 'end', gap: 12 }}>
        <Select
          label="Channel that was measured"
          aria-label="Channel that was measured"
          size="xs"
          w={190}
          allowDeselect={false}
          data={measured.map((l) => ({ value: l.id, label: l.name }))}
          value={channelId}
          onChange={setChannelId}
        />
        <label style={{ display: 'grid', gap: 2, fontSize: 12 }}>
          Listened for after the first arrival
          <NumberField
            label="Listened for after the first arrival"
            value={windowMs}
            unit="ms"
            min={0.5}
            max={500}
            step={1}
            onChange={setWindowMs}
          />
        </label>
        <Button
          size="compact-md"
          loading={state.busy}
          disabled={used.length === 0}
          onClick={() => void make()}
        >
          Make the polars
        </Button>
        <small className="quiet">
          Known from {Math.round(2000 / windowMs)} Hz on: reflections that come later are left out.
        </small>
      </div>
      <div
        style={{ maxHeight: 180, overflow: 'auto' }}
        role="group"
        aria-label="Traces and their angles"
        tabIndex={0}
      >
        <table className="figures">
          <thead>
            <tr>
              <th scope="col">Spot</th>
              <th scope="col">Plane</th>
              <th scope="col">Off the axis</th>
              <th scope="col">Distance</th>
              <th scope="col">Out of the plane</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.sweep.id}>
                <th scope="row">
                  <Checkbox
                    size="xs"
                    label={r.spot}
                    checked={r.isUsed}
                    onChange={(e) => set(r.sweep.id, { isUsed: e.currentTarget.checked })}
                  />
                </th>
                <td>
                  <Select
                    aria-label={`Plane of ${r.spot}`}
                    size="xs"
                    w={110}
                    allowDeselect={false}
                    data={[
                      { value: '0', label: 'horizontal' },
                      { value: '90', label: 'vertical' },
                    ]}
                    value={String(r.aboutDeg)}
                    onChange={(v) => set(r.sweep.id, { aboutDeg: v === '90' ? 90 : 0 })}
                  />
                </td>
                <td>
                  <NumberField
                    label={`Angle of ${r.spot}`}
                    value={r.angleDeg}
                    unit="°"
                    min={-180}
                    max={180}
                    step={5}
                    width={90}
                    onChange={(angleDeg) => set(r.sweep.id, { angleDeg })}
                  />
                </td>
                <td className="mono">{lengthText(r.distanceM, place.lengthUnit)}</td>
                <td className="mono">{Math.round(r.besideDeg)}°</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {state.problem ? (
        <p role="alert" style={{ margin: 0 }}>
          {state.problem}
        </p>
      ) : null}
    </div>
  );
}
