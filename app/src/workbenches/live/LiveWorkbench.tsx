import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import type { Project } from '@pebble-hall/core/project';
import { useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { Note } from '../../parts/Note';
import { figureOf } from '../../parts/meters/soundFigures';
import { curveToKeep, keepLive, keepSpectrum } from '../../services/keepTrace';
import {
  liveSession,
  pauseLive,
  resetLive,
  setSubject,
  startLive,
  stopLive,
} from '../../services/liveSession';
import { averagedOf, DEVICE_IDS, livePairs } from '../../services/liveSettings';
import { microphoneOf, rigName, splOffsetDb } from '../../services/theRig';
import { spectrumSentences } from '../../words/spectrumWords';
import { liveSentences } from '../../words/liveWords';
import { AverageCard } from './AverageCard';
import { DelayCard } from './DelayCard';
import { ElectronicsPage } from './electronics/ElectronicsPage';
import { GeneratorCard } from './GeneratorCard';
import { KeptList } from './KeptList';
import { AVERAGE } from './liveCurves';
import { PAGES, useLiveView, type LivePage } from './liveView';
import { memorySentence, type HeldMemory } from './heldMemory';
import { MemorySwitch } from './MemorySwitch';
import { MeasurementCard } from './MeasurementCard';
import { MeasurementList } from './MeasurementList';
import { SpectrumCards } from './SpectrumCards';
import { readingOf } from './spectrumCurves';
import { SpectrumView } from './SpectrumView';
import { TransferView } from './TransferView';
import { useKeptNoise } from './useKeptNoise';
import { useKeys } from '../../parts/useKeys';
import { useTraits } from './useTraits';
import { useKeepEvery } from './useKeepEvery';
import { useLiveFrame, useOfLiveFrame } from '../../services/useLiveFrame';

/** Sentences are read slower than figures, ms. */
const SAY_MS = 1000;
/** So many fit beside the plot. */
const MOST_SENTENCES = 4;

/** What does it sound like now, while something is moved or turned? */
export default function LiveWorkbench({ project }: { project: Project }) {
  const { status, isPaused, rate } = useStore(liveSession);
  const { live } = project;
  const [chosen, setSelected] = useState(live.measurements[0]!.id);
  const pair = livePairs(project).find((p) => p.id === chosen);
  const measurement =
    live.measurements.find((m) => m.id === (pair?.earId ?? chosen)) ?? live.measurements[0]!;
  const selected = measurement.id;
  const [view, setView] = useLiveView(project);
  const slow = useLiveFrame(SAY_MS);
  const isOn = status === 'on';
  const [held, setHeld] = useState<HeldMemory | null>(null);
  const [memory, setMemory] = useState<string | null>(null);
  const [channel, setChannel] = useState(0);
  const isDevice = view.page === 'Electronics';
  useEffect(() => setSubject(isDevice ? 'device' : 'room'), [isDevice]);
  const [keptId, keptAs] = isDevice
    ? ([DEVICE_IDS[channel]!, null] as const)
    : ([pair?.id ?? selected, pair || averagedOf(live) === 'none' ? null : 'Average'] as const);
  const keepsSpectrum = view.page === 'Spectrum';
  const keep = () => (keepsSpectrum ? keepSpectrum(selected, false) : keepLive(keptId, keptAs));
  const canKeep = useOfLiveFrame((frame) =>
    keepsSpectrum ? frame !== null : curveToKeep(project, keptId, keptAs, frame) !== null,
  );
  useKeepEvery(isOn && !isPaused ? view.keepEveryS : null, keep);
  useKeys({
    k: () => void keep(),
    r: () => void resetLive(),
    p: () => void (isOn && pauseLive(!isPaused)),
  });
  useEffect(() => {
    // a measurement that is gone is nothing that could be hidden
    const known = view.hidden.filter(
      (id) => id === AVERAGE || live.measurements.some((m) => m.id === id || `pair-${m.id}` === id),
    );
    if (known.length < view.hidden.length) setView({ hidden: known });
  }, [view.hidden, live.measurements, setView]);
  const offset = splOffsetDb(project);
  const noiseDb = useKeptNoise(project);
  const traits = useTraits(measurement.input);
  const isSpectrum = view.page === 'Spectrum';
  const compared = held && memory && slow ? memorySentence(held, memory, measurement, slow) : null;
  const said = useMemo(() => {
    if (!slow || !isOn) return [];
    const reading = isSpectrum ? readingOf(slow, live, selected) : null;
    const found = isSpectrum
      ? reading
        ? spectrumSentences({
            name: measurement.name,
            reading,
            noiseDb,
            weighting: live.spectrum.weighting,
            splOffsetDb: offset,
            octaves: measurement.input === microphoneOf(project).input ? slow.octaves : null,
            traits,
          })
        : []
      : [
          ...(compared ? [{ text: compared, attention: false }] : []),
          ...liveSentences(slow, live, project.rig, rate),
        ];
    return found.slice(0, live.measurements.length > 2 ? MOST_SENTENCES - 1 : MOST_SENTENCES);
  }, [slow, isOn, isSpectrum, live, selected, measurement, noiseDb, offset, traits, compared, project, rate]);
  return (
    <div className="work" style={{ gridTemplateRows: '36px minmax(0, 1fr) auto', height: '100%' }}>
      <div className="chips">
        <SegmentedControl
          size="xs"
          aria-label="What is measured live"
          data={[...PAGES]}
          value={view.page}
          onChange={(page) => setView({ page: page as LivePage })}
        />
        {isOn ? (
          <Button size="compact-md" variant="default" onClick={stopLive}>
            Stop the session
          </Button>
        ) : (
          <Button size="compact-md" loading={status === 'starting'} onClick={() => void startLive()}>
            Start the session
          </Button>
        )}
        <Button
          size="compact-md"
          disabled={!canKeep}
          onClick={() => void keep()}
          aria-label="Keep"
          title="Keep the trace as it stands"
          rightSection={<Key>K</Key>}
        >
          Keep
        </Button>
        <NativeSelect
          size="xs"
          aria-label="Keep by itself"
          data={[
            { value: '', label: 'keep by hand' },
            ...[2, 5, 10, 30].map((n) => ({ value: String(n), label: `keep every ${n} s` })),
          ]}
          value={view.keepEveryS === null ? '' : String(view.keepEveryS)}
          onChange={(e) =>
            setView({ keepEveryS: e.currentTarget.value === '' ? null : Number(e.currentTarget.value) })
          }
        />
        {isSpectrum || isDevice ? null : (
          <MemorySwitch isOn={isOn} held={held} onHold={setHeld} onActive={setMemory} />
        )}
        <span style={{ flex: 1 }} />
        {isOn && !isDevice ? (
          <LevelNow offsetDb={offset} />
        ) : (
          <span className="quiet">{rigName(project)}</span>
        )}
        <Button
          size="compact-md"
          variant="default"
          disabled={!isOn}
          onClick={() => void pauseLive(!isPaused)}
          aria-label={isPaused ? 'Go on' : 'Pause'}
          rightSection={<Key>P</Key>}
        >
          {isPaused ? 'Go on' : 'Pause'}
        </Button>
        <Button
          size="compact-md"
          variant="default"
          disabled={!isOn}
          onClick={() => void resetLive()}
          aria-label="Restart"
          rightSection={<Key>R</Key>}
        >
          Restart
        </Button>
      </div>
      {isDevice ? (
        <ElectronicsPage
          project={project}
          view={view}
          onView={setView}
          channel={channel < live.electronics.inputs.length ? channel : 0}
          onChannel={setChannel}
        />
      ) : (
        <>
          <div
            style={{
              display: 'grid',
              gridTemplateColumns: 'minmax(0, 1fr) 288px',
              gap: '10px 14px',
              minHeight: 0,
            }}
          >
            {isSpectrum ? (
              <SpectrumView
                project={project}
                selected={selected}
                view={view}
                noiseDb={noiseDb}
                splOffsetDb={offset}
              />
            ) : (
              <TransferView
                project={project}
                selected={pair?.id ?? selected}
                view={view}
                onView={setView}
                held={held}
              />
            )}
            <aside className="notes" aria-label="What is heard">
              <MeasurementList
                project={project}
                rate={rate}
                selected={pair?.id ?? selected}
                onSelect={setSelected}
                view={view}
                onView={setView}
              />
              <h2>What is heard</h2>
              {said.map((s, i) => (
                <Note key={s.text} number={i + 1} attention={s.attention}>
                  {s.text}
                </Note>
              ))}
              {said.length === 0 ? (
                <span className="quiet">
                  {isOn
                    ? isPaused
                      ? 'Paused: meters go on, curves stand still.'
                      : 'Play something: pink noise from the generator, or a piece of music.'
                    : 'Start the session: the inputs stream until it is stopped, whichever page you look at.'}
                </span>
              ) : null}
              <KeptList project={project} most={3} />
            </aside>
          </div>
          {isSpectrum ? (
            <div
              className="shore"
              style={{
                gridTemplateColumns: 'minmax(0, 1.05fr) minmax(0, 1fr) minmax(0, 1.1fr) minmax(0, 1.1fr)',
              }}
            >
              <GeneratorCard project={project} />
              <MeasurementCard project={project} measurement={measurement} />
              <SpectrumCards
                project={project}
                selected={selected}
                view={view}
                onView={setView}
                hasNoise={noiseDb !== null}
              />
            </div>
          ) : (
            <div
              className="shore"
              style={{
                gridTemplateColumns: 'minmax(0, 1.05fr) minmax(0, 1.1fr) minmax(0, 1.15fr) minmax(0, 1fr)',
              }}
            >
              <GeneratorCard project={project} />
              <MeasurementCard project={project} measurement={measurement} />
              <DelayCard project={project} measurement={measurement} view={view} onView={setView} />
              <AverageCard project={project} />
            </div>
          )}
        </>
      )}
    </div>
  );
}

function LevelNow({ offsetDb }: { offsetDb: number | null }) {
  const figure = useOfLiveFrame((frame) => figureOf(frame?.sound?.A.fastDb, offsetDb));
  return (
    <span className="quiet" role="group" aria-label="Level now" style={{ whiteSpace: 'nowrap' }}>
      Level now{' '}
      <b className="mono big" style={{ color: 'var(--ink)' }}>
        {figure}
      </b>{' '}
      {offsetDb === null ? 'dB(A) re full scale, Fast' : 'dB(A), Fast'}
    </span>
  );
}

/** A key that does the same; drawn, so that it is no part of the button's name. */
const Key = ({ children }: { children: string }) => (
  <span className="key mono" aria-hidden="true" data-key={children} />
);
