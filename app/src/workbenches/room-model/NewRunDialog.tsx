import { Button, Checkbox, Modal, MultiSelect, NativeSelect, TextInput } from '@mantine/core';
import { runFaces, type Project } from '@pebble-hall/core/project';
import { ACCURACIES, VOICES, type Accuracy, type Voice } from '@pebble-hall/core/runs';
import { useMemo, useState } from 'react';
import { NumberField } from '../../parts/NumberField';
import { PointFields } from '../../parts/PointFields';
import { useJob } from '../../services/useJob';
import { faultSentence } from '../../words/faultWords';
import { addRun } from './changeRuns';
import {
  HEARD,
  receiversOf,
  runAsked,
  sourcesOf,
  suggestedRun,
  SOUNDS,
  talkerPlace,
  usualAccuracy,
  type HeardWhere,
  type RunAsking,
  type Sounds,
} from './newRun';
import { RunNumbers } from './RunNumbers';
import { asSwept, sweptMost } from './sweptMost';

interface Props {
  project: Project;
  onClose: () => void;
  onMade: (id: string) => void;
}

const ACCURACY_WORDS: Record<Accuracy, string> = {
  quick: 'quick: times to within two differences that one would notice',
  usual: 'usual: to within one difference that one would notice',
  fine: 'fine: to within half a difference that one would notice',
};

/** A run of the room model: who sounds, where it is heard, how sure it is to be; what is wrong with the room is told before. */
export function NewRunDialog({ project, onClose, onMade }: Props) {
  const { place } = project;
  const unit = place.lengthUnit;
  const [asked, setAsked] = useState<RunAsking>(() => ({
    name: `Run ${project.roomRuns.length + 1}`,
    talker: true,
    talkerAt: talkerPlace(place),
    voice: 'raised',
    sounds: 'speech',
    loudspeakerIds: [],
    signalDbfs: -20,
    heard:
      place.kind === 'hall'
        ? 'about 30 seats'
        : place.audience.length + place.seats.length > 0
          ? 'a few seats'
          : 'the spots',
    looking: { alongDeg: null },
    tracedBy: 'browser',
    accuracy: usualAccuracy(place),
    own: {},
    noiseDb: 30,
  }));
  const swept = useMemo(() => sweptMost(project), [project]);
  const isSpeech = asked.sounds === 'speech';
  const set = (next: Partial<RunAsking>) => setAsked((now) => ({ ...now, ...next }));
  const suggested = useMemo(() => suggestedRun(place, asked.accuracy), [place, asked.accuracy]);
  const numbers = { ...suggested, ...asked.own };
  const sources = sourcesOf(project, asked);
  const receivers = receiversOf(place, asked.heard, asked.talkerAt, asked.looking);
  const isWhole = sources.length > 0 && receivers.length > 0;
  const faces = useMemo(() => runFaces(place), [place]);
  const check = useJob('rays.check', isWhole ? { faces, sources, receivers } : null);
  const faults = check.value ?? [];
  const rays = numbers.raysPerGroup * numbers.groups;
  const begin = async () => {
    const run = runAsked(project, asked, Math.floor(Math.random() * 2 ** 31));
    onClose();
    if (await addRun(run)) onMade(run.id);
  };
  return (
    <Modal opened onClose={onClose} title="New run" size={720} centered>
      <div style={{ display: 'grid', gap: 12 }}>
        <TextInput
          label="Name"
          size="xs"
          maxLength={60}
          value={asked.name}
          onChange={(e) => set({ name: e.currentTarget.value })}
        />
        {swept ? (
          <small>
            To hold it against what was measured:{' '}
            <button className="linkish" onClick={() => set(asSwept(swept))}>
              {`as the walk was swept, ${swept.channel.name} to the spots`}
            </button>
          </small>
        ) : null}
        <div className="row">
          <span>What sounds</span>
          <NativeSelect
            size="xs"
            aria-label="What sounds"
            data={SOUNDS.map((value) => ({
              value,
              label: value === 'speech' ? 'a talker and loudspeakers' : value,
            }))}
            value={asked.sounds}
            onChange={(e) => set({ sounds: e.currentTarget.value as Sounds })}
          />
        </div>
        {!isSpeech ? (
          <small className="quiet">
            {asked.sounds === 'a point source'
              ? 'Sends everywhere alike, as one measures rooms (ISO 3382-1); it has no level of its own.'
              : 'Plays towards the middle of those who hear it, as a rigid sphere of its size a part of which moves: near, but no instrument to the decibel. It has no level of its own.'}
          </small>
        ) : (
          <div className="row" style={{ gap: 8 }}>
            <Checkbox
              size="xs"
              label="a talker"
              checked={asked.talker}
              onChange={(e) => set({ talker: e.currentTarget.checked })}
            />
            <NativeSelect
              size="xs"
              aria-label="Voice"
              disabled={!asked.talker}
              data={Object.entries(VOICES).map(([value, db]) => ({
                value,
                label: `${value} voice, ${db} dB(A) at 1 m`,
              }))}
              value={asked.voice}
              onChange={(e) => set({ voice: e.currentTarget.value as Voice })}
            />
          </div>
        )}
        {asked.talker || !isSpeech ? (
          <div className="row">
            <span>{isSpeech ? 'The mouth is at' : 'It stands at'}</span>
            <PointFields
              label="Source"
              at={asked.talkerAt}
              unit={unit}
              onChange={(talkerAt) => set({ talkerAt })}
            />
          </div>
        ) : null}
        {isSpeech && place.loudspeakers.length > 0 ? (
          <>
            <MultiSelect
              size="xs"
              label="Loudspeakers that carry the speech, each as the plan has it"
              placeholder={asked.loudspeakerIds.length === 0 ? 'none' : ''}
              data={place.loudspeakers.map((l) => ({ value: l.id, label: l.name }))}
              value={asked.loudspeakerIds}
              onChange={(loudspeakerIds) => set({ loudspeakerIds })}
              comboboxProps={{ withinPortal: true }}
            />
            {asked.loudspeakerIds.length > 0 ? (
              <div className="row">
                <span>Speech they get</span>
                <NumberField
                  label="Signal"
                  value={asked.signalDbfs}
                  unit="dBFS"
                  min={-80}
                  max={0}
                  step={1}
                  onChange={(signalDbfs) => set({ signalDbfs })}
                />
              </div>
            ) : null}
          </>
        ) : null}
        <div className="row">
          <span>Heard at</span>
          <NativeSelect
            size="xs"
            aria-label="Heard at"
            data={Object.keys(HEARD)}
            value={asked.heard}
            onChange={(e) => set({ heard: e.currentTarget.value as HeardWhere })}
          />
          <span>looking</span>
          <NativeSelect
            size="xs"
            aria-label="Looking"
            data={['at the source', 'along an axis']}
            value={asked.looking.alongDeg === null ? 'at the source' : 'along an axis'}
            onChange={(e) =>
              set({ looking: { alongDeg: e.currentTarget.value === 'at the source' ? null : 180 } })
            }
          />
          {asked.looking.alongDeg === null ? null : (
            <NumberField
              label="Looking along"
              value={asked.looking.alongDeg}
              unit="°"
              digits={0}
              min={-180}
              max={360}
              step={5}
              onChange={(alongDeg) => set({ looking: { alongDeg } })}
            />
          )}
        </div>
        {!isSpeech ? null : (
          <div className="row">
            <Checkbox
              size="xs"
              label="noise in the place"
              checked={asked.noiseDb !== null}
              onChange={(e) => set({ noiseDb: e.currentTarget.checked ? 30 : null })}
            />
            {asked.noiseDb === null ? null : (
              <NumberField
                label="Noise"
                value={asked.noiseDb}
                unit="dB(A)"
                digits={0}
                min={0}
                max={100}
                step={1}
                onChange={(noiseDb) => set({ noiseDb })}
              />
            )}
          </div>
        )}
        <div className="row">
          <span>How sure</span>
          <NativeSelect
            size="xs"
            aria-label="How sure"
            data={(Object.keys(ACCURACIES) as Accuracy[]).map((value) => ({
              value,
              label: ACCURACY_WORDS[value],
            }))}
            value={asked.accuracy}
            onChange={(e) => {
              // an accuracy asks for rays of its own; what else was typed stays
              const { raysPerGroup: _, ...own } = asked.own;
              set({ accuracy: e.currentTarget.value as Accuracy, own });
            }}
          />
        </div>
        <div className="row">
          <span>Traced by</span>
          <NativeSelect
            size="xs"
            aria-label="Traced by"
            data={[
              { value: 'browser', label: 'this browser, on all its cores' },
              { value: 'server', label: 'the server of Pebble Hall, in threads of its own' },
            ]}
            value={asked.tracedBy}
            onChange={(e) => set({ tracedBy: e.currentTarget.value as RunAsking['tracedBy'] })}
          />
        </div>
        <small className="quiet">
          {`${rays.toLocaleString('en')} rays from each of ${sources.length} ${sources.length === 1 ? 'source' : 'sources'}, in ${numbers.groups} groups, to ${receivers.length} receivers; responses of ${numbers.lengthS.toFixed(1)} s; as from mirrors up to ${numbers.mirrored} faces; 63 Hz to 8 kHz in one pass.`}
        </small>
        <RunNumbers
          numbers={numbers}
          groups={numbers.groups}
          own={asked.own}
          faces={faces.length}
          receivers={receivers.length}
          onChange={(own) => set({ own })}
        />
        {faults.map((fault, i) => (
          <p key={i} role="alert" style={{ margin: 0 }}>
            {faultSentence(
              fault,
              faces.map((f) => f.name),
              unit,
            )}
          </p>
        ))}
        {check.problem ? <p role="alert">{check.problem}</p> : null}
        {isWhole ? null : (
          <p role="alert" style={{ margin: 0 }}>
            {sources.length === 0
              ? 'Nothing sounds yet: tick the talker, or choose loudspeakers.'
              : 'Nobody hears it yet: draw an audience, a seat or a spot in Plan.'}
          </p>
        )}
        <div className="dialog-end">
          <Button variant="default" onClick={onClose}>
            Cancel
          </Button>
          <Button disabled={!isWhole} onClick={() => void begin()}>
            {faults.length > 0 ? 'Run it all the same' : 'Run'}
          </Button>
        </div>
      </div>
    </Modal>
  );
}
