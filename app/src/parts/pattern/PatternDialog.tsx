import { Button, Modal, NativeSelect, Slider } from '@mantine/core';
import type { GroupPattern } from '@pebble-hall/core/coverage';
import { endFireStepMs, GRADIENT_PATTERNS, gradientDelayMs, type Group } from '@pebble-hall/core/place';
import type { Loudspeaker, Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { logGrid } from '@pebble-hall/core/signal';
import { useMemo, useState } from 'react';
import { formatHz } from '../../charts/chartMath';
import { ResponseChart } from '../../charts/ResponseChart';
import { modelledChannel } from '../../services/modelledChannels';
import { theProcessor } from '../../services/theProcessor';
import { useJob } from '../../services/useJob';
import { BoxBy } from './BoxBy';
import { PolarPlot } from './PolarPlot';
import { useMeasuredBox, type MeasuredFrom } from './useMeasuredBox';

interface Props {
  project: Project;
  loudspeaker: Loudspeaker;
  onGroup: (group: Group) => void;
  onClose: () => void;
}

const BAND = { 'full range': [63, 16_000], subwoofer: [20, 250] } as const;
/** A polar is drawn at every sixth of an octave, figures over frequency at every twenty-fourth. */
const PER_OCTAVE = 24;
const STARTS_HZ = { 'full range': 1000, subwoofer: 63 } as const;

/** How a group radiates as a whole: around it, ahead against behind, ahead against one box; with the delays that a pattern asks for. */
export function PatternDialog({ project, loudspeaker: l, onGroup, onClose }: Props) {
  const speed = speedOfSound(project.place.temperatureC);
  const frequency = useMemo(() => logGrid(...BAND[l.role], PER_OCTAVE), [l.role]);
  const { rate } = theProcessor().profile;
  const channel = modelledChannel(project, l.id, rate);
  const [from, setFrom] = useState<MeasuredFrom | null>(null);
  const measured = useMeasuredBox(project, from, BAND[l.role]);
  const byModel = useJob(
    'coverage.pattern',
    channel && !from ? { channel, aimDeg: l.aimDeg, frequency, speed } : null,
  );
  const byTraces = useJob(
    'coverage.measuredPattern',
    channel && measured.box ? { boxes: channel.boxes, aimDeg: l.aimDeg, box: measured.box, speed } : null,
  );
  const { value: pattern } = from ? byTraces : byModel;
  const problem = from ? (measured.problem ?? byTraces.problem) : byModel.problem;
  return (
    <Modal opened onClose={onClose} title={`The pattern of ${l.name}`} size={960} centered>
      <div style={{ display: 'grid', gap: 8 }}>
        <Wanted group={l.group} speed={speed} onGroup={onGroup} />
        <BoxBy project={project} from={from} onFrom={setFrom} />
      </div>
      {problem ? <p role="alert">{problem}</p> : null}
      {pattern && !problem ? (
        <Plots key={from ? 'traces' : 'model'} pattern={pattern} role={l.role} />
      ) : problem ? null : (
        <p className="quiet">Working it out …</p>
      )}
      <p className="quiet" style={{ margin: '8px 0 0' }}>
        {from
          ? 'Of boxes that are alike, far away in the open, at their own height. Both traces from one distance, in the open, to one time reference; between ahead and behind a pattern of first order is taken, as a source gives it that is small against the wavelength.'
          : 'By the model of its boxes, far away in the open, at its own height; with the sections of the shown variant, without its delay.'}
      </p>
    </Modal>
  );
}

/** The delays that a wanted pattern asks for, at this spacing and temperature. */
function Wanted({ group, speed, onGroup }: { group: Group | null; speed: number } & Pick<Props, 'onGroup'>) {
  if (group?.kind === 'gradient') {
    const msOf = (nullDeg: number) => Number(gradientDelayMs(group.spacingM, nullDeg, speed).toFixed(2));
    const now = GRADIENT_PATTERNS.find((p) => Math.abs(msOf(p.nullDeg) - group.rearDelayMs) < 0.006);
    return (
      <div className="row" style={{ justifyContent: 'flex-start', gap: 10 }}>
        Pattern wanted
        <NativeSelect
          size="xs"
          aria-label="Pattern wanted"
          data={[
            ...(now ? [] : [{ value: '', label: 'as it is' }]),
            ...GRADIENT_PATTERNS.map(({ name, nullDeg }) => ({
              value: name,
              label: `${name}, silent at ${Math.round(nullDeg)}°: ${msOf(nullDeg).toFixed(2)} ms`,
            })),
          ]}
          value={now?.name ?? ''}
          onChange={(e) => {
            const wanted = GRADIENT_PATTERNS.find((p) => p.name === e.currentTarget.value);
            if (wanted) onGroup({ ...group, rearDelayMs: msOf(wanted.nullDeg) });
          }}
        />
        <span className="quiet">the rear box is inverted, and waits {group.rearDelayMs.toFixed(2)} ms</span>
      </div>
    );
  }
  if (group?.kind === 'end-fire') {
    const stepMs = Number(endFireStepMs(group.spacingM, speed).toFixed(2));
    return (
      <div className="row" style={{ justifyContent: 'flex-start', gap: 10 }}>
        Each box waits {group.stepMs.toFixed(2)} ms for the one behind it
        <Button
          size="compact-sm"
          variant="default"
          disabled={Math.abs(stepMs - group.stepMs) < 0.006}
          onClick={() => onGroup({ ...group, stepMs })}
        >
          As long as its way: {stepMs.toFixed(2)} ms
        </Button>
      </div>
    );
  }
  return null;
}

function Plots({ pattern, role }: { pattern: GroupPattern; role: Loudspeaker['role'] }) {
  const { frequency, polars, frontToBackDb, aheadDb } = pattern;
  const steps = useMemo(() => [...frequency.keys()].filter((n) => n % (PER_OCTAVE / 6) === 0), [frequency]);
  const [nth, setNth] = useState(() =>
    steps.reduce(
      (best, n, i) =>
        Math.abs(Math.log(frequency[n]! / STARTS_HZ[role])) <
        Math.abs(Math.log(frequency[steps[best]!]! / STARTS_HZ[role]))
          ? i
          : best,
      0,
    ),
  );
  const at = steps[nth]!;
  const hz = formatHz(frequency[at]!);
  const curve = (label: string, colour: string, levels: Float64Array) => [
    { id: label, label, role: 'predicted' as const, colour, levels },
  ];
  const shared = {
    frequency,
    within: { fromHz: frequency[0]!, toHz: frequency.at(-1)! },
    levelLabel: 'dB',
  };
  const highest = Math.max(6, ...aheadDb.map((v) => 6 * Math.ceil(v / 6)));
  return (
    <div style={{ display: 'grid', gridTemplateColumns: '320px minmax(0, 1fr)', gap: 20, marginTop: 10 }}>
      <div style={{ display: 'grid', gap: 6, alignContent: 'start' }}>
        <div style={{ height: 300 }}>
          <PolarPlot
            label={`Polar at ${hz}`}
            curves={[{ name: 'around it', colour: 'var(--trace-kelp)', db: polars[at]! }]}
          />
        </div>
        <Slider
          thumbLabel="Frequency of the polar"
          min={0}
          max={steps.length - 1}
          step={1}
          label={null}
          value={nth}
          onChange={setNth}
        />
        <div className="row" role="group" aria-label="Figures of the pattern">
          <span>
            {hz}: <b>{frontToBackDb[at]!.toFixed(1)} dB</b> ahead over behind,{' '}
            <b>
              {aheadDb[at]! >= 0 ? '+' : '\u2212'}
              {Math.abs(aheadDb[at]!).toFixed(1)} dB
            </b>{' '}
            ahead over one box
          </span>
        </div>
      </div>
      <div style={{ display: 'grid', gridTemplateRows: '170px 170px', gap: 10 }}>
        <div className="plot" style={{ minHeight: 0 }}>
          <ResponseChart
            label="Ahead over behind"
            {...shared}
            traces={curve('ahead over behind', 'trace-kelp', frontToBackDb)}
            range={{ lowDb: 0, highDb: 60 }}
          />
        </div>
        <div className="plot" style={{ minHeight: 0 }}>
          <ResponseChart
            label="Ahead over one box"
            {...shared}
            traces={curve('ahead over one box alone', 'trace-buoy', aheadDb)}
            range={{ lowDb: highest - 36, highDb: highest }}
          />
        </div>
      </div>
    </div>
  );
}
