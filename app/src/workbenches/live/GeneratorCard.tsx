import { memo } from 'react';
import { Button, Checkbox, FileButton, NativeSelect, Switch } from '@mantine/core';
import { BLOCK_LENGTHS } from '@pebble-hall/core/live';
import type { GeneratorChoice, Project } from '@pebble-hall/core/project';
import { useStore } from 'zustand';
import { BandFields } from '../../parts/BandFields';
import { NumberField } from '../../parts/NumberField';
import { liveSession, setGeneratorFile, setPlaying } from '../../services/liveSession';
import { splOffsetDb } from '../../services/theRig';
import { useLiveFrame } from '../../services/useLiveFrame';
import { changeLive } from './changeLive';
import { readSoundFile } from './readSoundFile';

const SIGNALS: { value: GeneratorChoice['signal']['kind']; label: string }[] = [
  { value: 'pink', label: 'Pink noise' },
  { value: 'band', label: 'Pink noise in a band' },
  { value: 'white', label: 'White noise' },
  { value: 'sine', label: 'Sine' },
  { value: 'multi-tone', label: 'A tone in each third' },
  { value: 'sweep', label: 'Sweeps' },
  { value: 'file', label: 'Sound file' },
];

/** A signal to begin with, of a kind. */
function signalFor(
  kind: GeneratorChoice['signal']['kind'],
  period: number | null,
): GeneratorChoice['signal'] {
  switch (kind) {
    case 'pink':
    case 'white':
      return { kind, period };
    case 'band':
      return { kind, fromHz: 40, toHz: 160, period };
    case 'sine':
      return { kind, hz: 1000 };
    case 'sweep':
      return { kind, seconds: 2 };
    default:
      return { kind };
  }
}

/** What is played, how loud, and on which channels. */
export const GeneratorCard = memo(function GeneratorCard({ project }: { project: Project }) {
  const { generator } = project.live;
  const { signal, levelDbfs, loudspeakerIds, alternateS } = generator;
  const isOn = useStore(liveSession, (s) => s.status === 'on');
  const isPlaying = useStore(liveSession, (s) => s.isPlaying);
  const file = useStore(liveSession, (s) => s.file);
  const set = (label: string, change: Partial<GeneratorChoice>) =>
    changeLive(label, (live) => ({ ...live, generator: { ...live.generator, ...change } }));
  const setSignal = (next: GeneratorChoice['signal']) => set('signal of the generator', { signal: next });
  const channels = project.place.loudspeakers.filter((l) => l.fitted);
  const [first, second] = loudspeakerIds;
  const options = channels.map((l) => ({ value: l.id, label: l.name }));
  const period = 'period' in signal ? signal.period : 65_536;
  const missing =
    channels.length === 0
      ? 'no channels'
      : first === undefined
        ? 'choose a channel'
        : signal.kind === 'file' && !file
          ? 'choose a file'
          : null;
  return (
    <section className="card" aria-label="Generator">
      <h2>
        Generator{' '}
        <small>{isPlaying ? 'plays' : (missing ?? (isOn ? 'silent' : 'starts with the session'))}</small>
      </h2>
      <div className="row">
        <NativeSelect
          size="xs"
          aria-label="Signal"
          data={SIGNALS}
          value={signal.kind}
          onChange={(e) => void setSignal(signalFor(e.currentTarget.value as typeof signal.kind, period))}
          style={{ flex: 1 }}
        />
        {signal.kind === 'sine' ? (
          <NumberField
            label="Frequency"
            value={signal.hz}
            unit="Hz"
            min={10}
            max={20_000}
            step={10}
            width={96}
            onChange={(hz) => void setSignal({ kind: 'sine', hz })}
          />
        ) : null}
        {signal.kind === 'sweep' ? (
          <NumberField
            label="Length of a sweep"
            value={signal.seconds}
            unit="s"
            min={0.2}
            max={30}
            step={0.5}
            width={80}
            onChange={(seconds) => void setSignal({ kind: 'sweep', seconds })}
          />
        ) : null}
        {'period' in signal ? (
          <NativeSelect
            size="xs"
            aria-label="Repeats"
            w={112}
            data={[
              { value: 'random', label: 'random' },
              ...BLOCK_LENGTHS.map((n) => ({ value: String(n), label: `every ${n / 1024} k` })),
            ]}
            value={signal.period === null ? 'random' : String(signal.period)}
            onChange={(e) => {
              const { value } = e.currentTarget;
              void setSignal({ ...signal, period: value === 'random' ? null : Number(value) });
            }}
          />
        ) : null}
        {signal.kind === 'file' ? (
          <FileButton
            accept="audio/*,.wav,.flac"
            onChange={(chosen) =>
              void (chosen && readSoundFile(chosen).then((read) => read && setGeneratorFile(read)))
            }
          >
            {(props) => (
              <Button size="compact-xs" variant="default" {...props}>
                {file ? file.name.slice(0, 16) : 'Choose'}
              </Button>
            )}
          </FileButton>
        ) : null}
      </div>
      {signal.kind === 'band' ? (
        <div className="row">
          From
          <BandFields
            names={['Lower end of the band', 'Upper end of the band']}
            band={{ from: signal.fromHz, to: signal.toHz }}
            min={10}
            least={1.2}
            width={92}
            onChange={({ from, to }) => void setSignal({ ...signal, fromHz: from, toHz: to })}
          />
        </div>
      ) : null}
      <div className="row">
        <NativeSelect
          size="xs"
          aria-label="Channel"
          data={[...(first === undefined ? [{ value: '', label: 'none' }] : []), ...options]}
          value={first ?? ''}
          onChange={(e) =>
            void set('channel of the generator', {
              loudspeakerIds: [e.currentTarget.value, ...(second ? [second] : [])].filter(
                (id, i, all) => id !== '' && all.indexOf(id) === i,
              ),
            })
          }
          style={{ flex: 1 }}
        />
        <NativeSelect
          size="xs"
          aria-label="Second channel"
          data={[{ value: '', label: 'alone' }, ...options.filter((o) => o.value !== first)]}
          value={second ?? ''}
          onChange={(e) =>
            void set('channels of the generator', {
              loudspeakerIds: [
                ...(first ? [first] : []),
                ...(e.currentTarget.value ? [e.currentTarget.value] : []),
              ],
            })
          }
          style={{ flex: 1 }}
        />
      </div>
      {second ? (
        <div className="row">
          <Checkbox
            size="xs"
            label="Alternate, each for"
            checked={alternateS !== null}
            onChange={(e) =>
              void set('alternating channels', { alternateS: e.currentTarget.checked ? 2 : null })
            }
          />
          {alternateS === null ? null : (
            <NumberField
              label="Time on each channel"
              value={alternateS}
              unit="s"
              min={0.2}
              max={600}
              step={0.5}
              width={80}
              onChange={(value) => void set('alternating channels', { alternateS: value })}
            />
          )}
        </div>
      ) : null}
      <div className="row">
        Level
        <NumberField
          label="Level of the generator"
          value={levelDbfs}
          unit="dBFS"
          min={-90}
          max={0}
          step={1}
          width={106}
          onChange={(value) => void set('level of the generator', { levelDbfs: value })}
        />
        <Switch
          size="sm"
          label="Play"
          aria-label="Play the generator"
          disabled={!isOn || missing !== null}
          checked={isPlaying}
          onChange={(e) => setPlaying(e.currentTarget.checked)}
        />
      </div>
      {isPlaying ? <PlayedLevel project={project} levelDbfs={levelDbfs} /> : null}
    </section>
  );
});

/** Once the level is calibrated: what arrives at the microphone, and what to set for another level there. */
function PlayedLevel({ project, levelDbfs }: { project: Project; levelDbfs: number }) {
  const frame = useLiveFrame(500);
  const offset = splOffsetDb(project);
  const slow = frame?.sound?.Z.slowDb;
  if (offset === null || slow === undefined || !Number.isFinite(slow)) return null;
  const now = slow + offset;
  return (
    <div className="row">
      At the microphone
      <NumberField
        label="Level at the microphone"
        value={now}
        unit="dB"
        min={30}
        max={120}
        step={1}
        width={96}
        onChange={(wanted) =>
          void changeLive('level of the generator', (live) => ({
            ...live,
            generator: { ...live.generator, levelDbfs: Math.max(-90, Math.min(0, levelDbfs + wanted - now)) },
          }))
        }
      />
    </div>
  );
}
