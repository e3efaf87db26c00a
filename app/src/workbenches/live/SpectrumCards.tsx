import { Button, Chip, NativeSelect, Switch } from '@mantine/core';
import type { SpectrumBands } from '@pebble-hall/core/live';
import type { Project, SpectrumChoice } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import { NumberField } from '../../parts/NumberField';
import { keepSpectrum } from '../../services/keepTrace';
import { liveSession } from '../../services/liveSession';
import { changeLive } from './changeLive';
import { OVERLAYS, type LiveView } from './liveView';

interface Props {
  project: Project;
  selected: string;
  view: LiveView;
  onView: (change: Partial<LiveView>) => void;
  /** whether the room's noise is known in the bands that are shown */
  hasNoise: boolean;
}

const BANDS: { value: string; label: string }[] = [
  ...[1, 3, 6, 12, 24, 48].map((n) => ({ value: String(n), label: n === 1 ? 'octaves' : `1/${n} octave` })),
  { value: 'narrow', label: 'narrow, 3 Hz' },
];

/** How spectra are made, what is drawn beside them, and the room's own noise. */
export function SpectrumCards({ project, selected, view, onView, hasNoise }: Props) {
  const { spectrum, measurements } = project.live;
  const { status, isPlaying } = useStore(liveSession);
  const set = (label: string, change: Partial<SpectrumChoice>) =>
    void changeLive(label, (live) => ({ ...live, spectrum: { ...live.spectrum, ...change } }));
  const { bands, weighting, seconds, noiseId } = spectrum;
  const noise = project.kept.find((k) => k.id === noiseId);
  const measured = measurements.find((m) => m.id === selected)?.name ?? '';
  return (
    <>
      <section className="card" aria-label="Spectrum">
        <h2>Spectrum</h2>
        <div className="row">
          <NativeSelect
            size="xs"
            aria-label="Bands"
            data={BANDS}
            value={String(bands)}
            onChange={(e) => {
              const { value } = e.currentTarget;
              set('bands of the spectrum', {
                bands: value === 'narrow' ? value : (Number(value) as SpectrumBands),
              });
            }}
            style={{ flex: 1 }}
          />
          <NativeSelect
            size="xs"
            aria-label="Weighting"
            w={84}
            data={['Z', 'A', 'C']}
            value={weighting}
            onChange={(e) =>
              set('weighting of the spectrum', {
                weighting: e.currentTarget.value as SpectrumChoice['weighting'],
              })
            }
          />
        </div>
        <div className="row">
          <span style={{ width: 62 }}>Over</span>
          <NativeSelect
            size="xs"
            aria-label="Spectrum averaged over"
            data={[
              { value: 'last', label: 'the last' },
              { value: 'all', label: 'all since restarted' },
            ]}
            value={seconds === null ? 'all' : 'last'}
            onChange={(e) =>
              set('averaging of the spectrum', { seconds: e.currentTarget.value === 'all' ? null : 4 })
            }
            style={{ flex: 1 }}
          />
          {seconds === null ? null : (
            <NumberField
              label="Averaging time of the spectrum"
              value={seconds}
              unit="s"
              min={0.1}
              max={600}
              step={1}
              width={72}
              onChange={(value) => set('averaging of the spectrum', { seconds: value })}
            />
          )}
        </div>
        <Chip.Group
          multiple
          value={view.overlays}
          onChange={(overlays) => onView({ overlays: overlays as LiveView['overlays'] })}
        >
          <div className="row" style={{ justifyContent: 'flex-start', flexWrap: 'wrap', gap: 5 }}>
            {OVERLAYS.map((o) => (
              <Chip key={o} size="xs" value={o}>
                {o}
              </Chip>
            ))}
          </div>
        </Chip.Group>
      </section>
      <section className="card" aria-label="Noise of the room">
        <h2>
          Noise of the room{' '}
          <small>
            {noise
              ? new Date(noise.keptAt).toLocaleTimeString([], {
                  hour: '2-digit',
                  minute: '2-digit',
                  hour12: false,
                })
              : 'not kept yet'}
          </small>
        </h2>
        <span className="quiet">
          {noise
            ? hasNoise
              ? `${noise.name}: held against what is heard now.`
              : `${noise.name} has other bands or another weighting: keep it again.`
            : 'Keep it while nothing plays; then what it explains of a spectrum is told, and can be taken off.'}
        </span>
        <div className="row">
          <Button
            size="compact-sm"
            variant="default"
            disabled={status !== 'on' || isPlaying}
            title={isPlaying ? 'Silence the generator first' : `What ${measured} hears now`}
            onClick={() => void keepSpectrum(selected, true)}
          >
            Keep as noise
          </Button>
          <Button
            size="compact-sm"
            variant="subtle"
            disabled={noiseId === null}
            onClick={() => set('noise of the room forgotten', { noiseId: null })}
          >
            Forget
          </Button>
        </div>
        <Switch
          size="xs"
          label="take it off the spectrum"
          disabled={!hasNoise}
          checked={view.lessNoise && hasNoise}
          onChange={(e) => onView({ lessNoise: e.currentTarget.checked })}
        />
      </section>
    </>
  );
}
