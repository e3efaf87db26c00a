import { SegmentedControl } from '@mantine/core';
import { channelsApart, gainSteps, liveGrid, type TransferCurve } from '@pebble-hall/core/live';
import type { Project } from '@pebble-hall/core/project';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { LivePlot } from '../../../charts/LivePlot';
import { Note } from '../../../parts/Note';
import { PlotChoices } from '../../../parts/PlotChoices';
import { ReadingPanel } from '../../../parts/readings/ReadingPanel';
import { foundCurves, useReadings } from '../../../parts/readings/useReadings';
import { liveFrames, liveSession, watchLive } from '../../../services/liveSession';
import { deviceName } from '../../../services/theDevice';
import { useLibrary } from '../../../services/useLibrary';
import { apartSentence, gainSentence } from '../../../words/deviceWords';
import { KeptList } from '../KeptList';
import { liveRange } from '../liveCurves';
import type { LiveView } from '../liveView';
import { useLiveFrame } from '../../../services/useLiveFrame';
import { useSteadyRange } from '../useSteadyRange';
import { channelCurves, DEVICE_LOWER, levelCurves, lowerAxis, lowerCurves } from './deviceCurves';
import { ChannelLevel } from './ChannelLevel';
import { CompareCard } from './CompareCard';
import { FeedCard } from './FeedCard';
import { FiguresCard } from './FiguresCard';
import { FrontPanel } from './FrontPanel';
import { ReadCard } from './ReadCard';
import { WiringPicture } from './WiringPicture';

interface Props {
  project: Project;
  view: LiveView;
  onView: (change: Partial<LiveView>) => void;
  /** the channel that is kept: 0 or 1 */
  channel: number;
  onChannel: (channel: number) => void;
}

const START_RANGE = { lowDb: -18, highDb: 18 };
const subscribe = (tell: () => void) => liveFrames.subscribe(tell);
const SAY_MS = 1000;

/** What does a device do to a signal, and do its channels do the same? */
export function ElectronicsPage({ project, view, onView, channel, onChannel }: Props) {
  const bench = project.live.electronics;
  const { inputs, flatId } = bench;
  const { rate, status, isPlaying } = useStore(liveSession);
  const isOn = status === 'on';
  const frequency = useMemo(() => liveGrid(rate), [rate]);
  const [cursor, setCursor] = useState<number | null>(null);
  const [readingId, setReadingId] = useState<string | null>(project.readings.at(-1)?.id ?? null);
  const read = useReadings(project, readingId);
  useEffect(watchLive, []);
  const slow = useLiveFrame(SAY_MS);
  const flatIds = useMemo(() => (flatId === null ? [] : [flatId]), [flatId]);
  const flat = useLibrary(project, flatIds).get(flatId ?? '')?.curve ?? null;
  const count = inputs.length;
  const curvesNow = useCallback(
    () => (isOn ? channelCurves(liveFrames.getState().frame, count) : []),
    [isOn, count],
  );
  const lower = view.deviceLower;
  const isReading = lower === 'Shapes' && read.reading !== null;
  const levels = useCallback(
    () =>
      isReading
        ? [...(read.curve ? levelCurves([read.curve], null, 48) : []), ...foundCurves(read)]
        : levelCurves(curvesNow(), flat, view.smoothing),
    [isReading, read, curvesNow, flat, view.smoothing],
  );
  const said = useMemo(() => {
    // where nothing plays there is nothing to be said of what comes back
    if (!slow || !isOn || !isPlaying) return { sentences: [], meanDb: 0 };
    const curves = channelCurves(slow, count);
    const steps = gainSteps(
      inputs.map((n) => slow.inputs.find((l) => l.input === n) ?? silent(n)),
      curves,
    );
    const [a, b] = curves;
    const apart = a && b ? channelsApart(a, b) : null;
    return {
      meanDb: apart?.meanDb ?? 0,
      sentences: [
        ...steps.map((s) => ({ text: gainSentence(s, inputs), attention: s.kind !== 'weak' })),
        ...(apart && !steps.some((s) => s.kind === 'nothing') ? [apartSentence(apart, bench)] : []),
      ],
    };
  }, [slow, isOn, isPlaying, inputs, count, bench]);
  const { meanDb } = said;
  const below = useCallback(
    () =>
      lower === 'Wiring' || lower === 'Front' || lower === 'Shapes'
        ? []
        : lowerCurves(lower, curvesNow(), bench, view.smoothing, meanDb),
    [lower, curvesNow, bench, view.smoothing, meanDb],
  );
  const range = useSteadyRange(
    START_RANGE,
    useCallback(() => {
      const found: (TransferCurve | null)[] = isReading ? [read.curve] : curvesNow();
      const shown = found.flatMap((curve, i) =>
        curve ? [{ id: String(i), name: '', colour: '', curve }] : [],
      );
      return liveRange(shown, isReading ? foundCurves(read).map((c) => c.values) : []);
    }, [curvesNow, isReading, read]),
  );
  const axis = lower === 'Wiring' || lower === 'Front' || lower === 'Shapes' ? null : lowerAxis(lower, bench);
  const lowers = project.rig.kind === 'simulated' ? DEVICE_LOWER : DEVICE_LOWER.filter((l) => l !== 'Front');
  return (
    <>
      <div
        style={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr) 288px',
          gap: '10px 14px',
          minHeight: 0,
        }}
      >
        <div
          className="plot"
          style={{
            display: 'grid',
            gridTemplateRows:
              lower === 'Shapes'
                ? 'minmax(0, 0.62fr) 30px minmax(0, 1fr)'
                : 'minmax(0, 1fr) 30px minmax(0, 1.05fr)',
          }}
        >
          <LivePlot
            label={isReading ? 'Level of what is read' : 'Level of the channels'}
            unit="dB"
            caption={
              isReading
                ? 'what is read; dashed, what was found'
                : `output over input${flat ? '; dotted, as it stood flat' : ''}`
            }
            frequency={frequency}
            range={range}
            curves={levels}
            subscribe={subscribe}
            cursor={cursor}
            onCursor={setCursor}
          />
          <PlotChoices
            lowers={lowers}
            lower={lower}
            onLower={(deviceLower) => onView({ deviceLower })}
            fades={view.fades}
            onFades={(fades) => onView({ fades })}
            smoothing={view.smoothing}
            onSmoothing={(smoothing) => onView({ smoothing })}
          />
          {axis ? (
            <LivePlot
              label={`${lower} of the channels`}
              unit={axis.unit}
              caption={axis.caption}
              frequency={frequency}
              range={axis.range}
              ticks={axis.ticks}
              signed={lower !== 'Coherence'}
              curves={below}
              subscribe={subscribe}
              {...(lower === 'Phase' ? { jump: 200 } : {})}
              cursor={cursor}
              onCursor={setCursor}
            />
          ) : lower === 'Front' ? (
            <FrontPanel project={project} />
          ) : lower === 'Wiring' || !read.reading ? (
            lower === 'Shapes' ? (
              <p className="quiet" style={{ padding: '10px 18px' }}>
                Nothing is read yet. Keep the device flat, turn one knob, then press Read this curve.
              </p>
            ) : (
              <WiringPicture project={project} />
            )
          ) : (
            <ReadingPanel reading={read.reading} found={read.found} family={read.family} />
          )}
        </div>
        <aside className="notes" aria-label="What the device does">
          <section
            aria-label="Channels of the device"
            style={{ display: 'flex', flexDirection: 'column', gap: 6 }}
          >
            <h2>
              {deviceName(project)}
              {count > 1 ? (
                <SegmentedControl
                  size="xs"
                  aria-label="Channel that is kept"
                  data={[
                    { value: '0', label: 'A' },
                    { value: '1', label: 'B' },
                  ]}
                  value={String(channel)}
                  onChange={(value) => onChannel(Number(value))}
                />
              ) : null}
            </h2>
            {inputs.map((input, i) => (
              <ChannelLevel key={input} channel={i} input={input} />
            ))}
          </section>
          <h2>What the device does</h2>
          {said.sentences.map((s, i) => (
            <Note key={s.text} number={i + 1} attention={s.attention}>
              {s.text}
            </Note>
          ))}
          {said.sentences.length === 0 ? (
            <span className="quiet">
              {isOn
                ? 'Plug it as under Wiring, then play noise.'
                : 'Start the session: noise goes through the device, and what comes back is held against it.'}
            </span>
          ) : null}
          <KeptList project={project} most={2} />
        </aside>
      </div>
      <div className="shore" style={{ gridTemplateColumns: '1.15fr 1fr 1.2fr 1fr' }}>
        <FeedCard project={project} />
        <CompareCard bench={bench} />
        <FiguresCard bench={bench} />
        <ReadCard
          project={project}
          channel={channel}
          readingId={readingId}
          onReading={(id) => {
            setReadingId(id);
            onView({ deviceLower: 'Shapes' });
          }}
        />
      </div>
    </>
  );
}

const silent = (input: number) => ({ input, levelDb: -Infinity, peakDb: -Infinity, clipped: 0, broken: 0 });
