import { Switch } from '@mantine/core';
import { liveGrid } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { memo, useCallback, useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { formatHz, signedDb } from '../../charts/chartMath';
import { LivePlot } from '../../charts/LivePlot';
import { BELOW_LEVEL, WRAPS_DEG } from '../../charts/overFrequency';
import { NumberField } from '../../parts/NumberField';
import { PlotChoices } from '../../parts/PlotChoices';
import { livePairs } from '../../services/liveSettings';
import { liveFrames, liveSession, watchLive } from '../../services/liveSession';
import { ImpulseView } from './ImpulseView';
import { heldCurves, liveRange, plotted, shownCurves, valuesOf } from './liveCurves';
import type { HeldMemory } from './heldMemory';
import { LOWER, type LiveView } from './liveView';
import { StandsView } from './StandsView';
import { useLiveFrame } from '../../services/useLiveFrame';
import { useSteadyRange } from './useSteadyRange';

/** Of a phase that goes on beyond half a turn. */
const UNWRAPPED = { range: { lowDb: -1080, highDb: 360 }, ticks: [-1080, -720, -360, 0, 360] };
const CAPTIONS = {
  Phase: 'phase, after the delay that is taken off',
  'Group delay': 'group delay, after the delay that is taken off',
  Coherence: 'coherence: what part of the measured power comes from the reference',
} as const;

interface Props {
  project: Project;
  selected: string;
  view: LiveView;
  onView: (change: Partial<LiveView>) => void;
  /** what was measured through another memory; null where nothing is held */
  held: HeldMemory | null;
}

const START_RANGE = { lowDb: -24, highDb: 12 };
const subscribe = (tell: () => void) => liveFrames.subscribe(tell);

/** Level above; phase, group delay, coherence, impulse response or the place below. */
export const TransferView = memo(function TransferView({ project, selected, view, onView, held }: Props) {
  const { live } = project;
  const rate = useStore(liveSession, (s) => s.rate);
  const frequency = useMemo(() => liveGrid(rate), [rate]);
  const [cursor, setCursor] = useState<number | null>(null);
  useEffect(watchLive, []);
  const { rig } = project;
  const pairs = useMemo(() => livePairs({ live, rig }), [live, rig]);
  const shown = useCallback(
    () => shownCurves(liveFrames.getState().frame, live, view.hidden, pairs),
    [live, view.hidden, pairs],
  );
  const range = useSteadyRange(
    START_RANGE,
    useCallback(() => liveRange(shown()), [shown]),
  );
  const levels = useCallback(
    () => [...heldCurves(held, live, 'Level', view), ...plotted(shown(), 'Level', view, selected)],
    [shown, view, selected, held, live],
  );
  const { lower } = view;
  const lowerCurves = useCallback(
    () =>
      lower === 'Impulse' || lower === 'Place'
        ? []
        : [...heldCurves(held, live, lower, view), ...plotted(shown(), lower, view, selected)],
    [shown, lower, view, selected, held, live],
  );
  const isUnwrapped = lower === 'Phase' && view.isUnwrapped;
  return (
    <div
      className="plot"
      style={{
        display: 'grid',
        gridTemplateRows:
          lower === 'Place'
            ? 'minmax(0, 0.6fr) 30px minmax(0, 1fr)'
            : 'minmax(0, 1.25fr) 30px minmax(0, 1fr)',
      }}
    >
      <LivePlot
        label="Level of the transfer functions"
        unit="dB"
        caption="level, measured over reference"
        frequency={frequency}
        range={range}
        curves={levels}
        subscribe={subscribe}
        cursor={cursor}
        onCursor={setCursor}
        tools={<Readout project={project} view={view} cursor={cursor} frequency={frequency} />}
      />
      <PlotChoices
        lowers={LOWER}
        lower={lower}
        onLower={(next) => onView({ lower: next })}
        fades={view.fades}
        onFades={(fades) => onView({ fades })}
        smoothing={view.smoothing}
        onSmoothing={(smoothing) => onView({ smoothing })}
      >
        {lower === 'Phase' ? (
          <>
            <Switch
              size="xs"
              label="unwrapped"
              checked={view.isUnwrapped}
              onChange={(e) => onView({ isUnwrapped: e.currentTarget.checked })}
            />
            <NumberField
              label="Phase turned by"
              value={view.turnDeg}
              unit="°"
              digits={0}
              min={-360}
              max={360}
              step={15}
              width={64}
              onChange={(turnDeg) => onView({ turnDeg })}
            />
          </>
        ) : null}
      </PlotChoices>
      {lower === 'Impulse' ? (
        <div style={{ position: 'relative', minHeight: 0 }}>
          <ImpulseView live={live} selected={pairs.find((p) => p.id === selected)?.earId ?? selected} />
        </div>
      ) : lower === 'Place' ? (
        <StandsView project={project} />
      ) : (
        <LivePlot
          label={`${lower} of the transfer functions`}
          unit={BELOW_LEVEL[lower].unit}
          caption={CAPTIONS[lower]}
          frequency={frequency}
          range={(isUnwrapped ? UNWRAPPED : BELOW_LEVEL[lower]).range}
          ticks={[...(isUnwrapped ? UNWRAPPED : BELOW_LEVEL[lower]).ticks]}
          signed={lower !== 'Coherence'}
          curves={lowerCurves}
          subscribe={subscribe}
          {...(lower === 'Phase' && !isUnwrapped ? { jump: WRAPS_DEG } : {})}
          cursor={cursor}
          onCursor={setCursor}
        />
      )}
    </div>
  );
});

/** Level and phase of everything that is shown, at the frequency that is pointed at. */
function Readout({
  project,
  view,
  cursor,
  frequency,
}: {
  project: Project;
  view: LiveView;
  cursor: number | null;
  frequency: Float64Array;
}) {
  const frame = useLiveFrame(150);
  if (cursor === null) return null;
  const shown = shownCurves(frame, project.live, view.hidden, livePairs(project));
  return (
    <output className="mono" aria-label="Readout" style={{ display: 'flex', gap: 12, fontSize: 12 }}>
      <span>{formatHz(frequency[cursor]!)}</span>
      {shown.map(({ id, colour, curve }) => {
        const level = valuesOf(curve, 'Level', view)[cursor]!;
        const phase = valuesOf(curve, 'Phase', { ...view, isUnwrapped: false })[cursor]!;
        const coherence = curve.coherence[cursor]!;
        return (
          <span key={id} style={{ color: `var(--${colour})` }}>
            {signedDb(level)} dB {Number.isFinite(phase) ? `${Math.round(phase)}°` : '–'}
            {Number.isFinite(coherence) ? ` ${coherence.toFixed(2)}` : ''}
          </span>
        );
      })}
    </output>
  );
}
