import { Button, MultiSelect, NativeSelect } from '@mantine/core';
import { heardFirst, proposeVoiceFirst, type VoiceHelp } from '@pebble-hall/core/alignment';
import { meanPoint, type Point } from '@pebble-hall/core/geometry';
import { freeName, takeVoiceFirst, variantOf, type Project } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { VOICES, type Voice } from '@pebble-hall/core/runs';
import { useMemo, useState } from 'react';
import { LengthField } from '../../parts/LengthField';
import { Note } from '../../parts/Note';
import { NumberField } from '../../parts/NumberField';
import { PointFields } from '../../parts/PointFields';
import { useKeys } from '../../parts/useKeys';
import { changeProject } from '../../services/changeProject';
import { heardAt } from '../../services/modelledChannels';
import { notify } from '../../services/notify';
import { runChannel } from '../../services/runSources';
import { useJob } from '../../services/useJob';
import { isIndex, useKept } from '../../services/useKept';
import { outWords, seatSentence, voiceSentence } from '../../words/voiceWords';
import { addRun } from './changeRuns';
import { Halves } from './Halves';
import { runAsked, talkerPlace, type RunAsking } from './newRun';
import type { Runs } from './useRuns';
import { VoicePlan } from './VoicePlan';
import { VoiceWindow } from './VoiceWindow';

interface Wish {
  talkerAt: Point;
  voice: Voice;
  signalDbfs: number;
  nearM: number;
  leadMs: number;
  louderDb: number;
  ids: string[];
}
const isWish = (value: unknown): value is Wish =>
  typeof value === 'object' && value !== null && 'talkerAt' in value && 'ids' in value && 'leadMs' in value;

const NO_HELP: Pick<VoiceHelp, 'gainDb' | 'delayS'> = { gainDb: 0, delayS: 0 };

/** Is the voice heard first? Gain and delay of loudspeakers that help a talker, so that it is the talker who is heard from. */
export function VoiceView({ project, runs }: { project: Project; runs: Runs }) {
  const { place } = project;
  const { lengthUnit: unit } = place;
  const helpers = useMemo(
    () => place.loudspeakers.filter((l) => l.fitted && l.role !== 'subwoofer'),
    [place.loudspeakers],
  );
  const [wish, setWish] = useKept<Wish>(
    `room-model voice ${project.id}`,
    {
      talkerAt: talkerPlace(place),
      voice: 'raised',
      signalDbfs: -45,
      nearM: 3,
      leadMs: 10,
      louderDb: 6,
      ids: helpers.map((l) => l.id),
    },
    isWish,
  );
  const set = (next: Partial<Wish>) => {
    setEdited(new Map());
    setWish({ ...wish, ...next });
  };
  /** what was typed instead of what is proposed, by channel */
  const [edited, setEdited] = useState<ReadonlyMap<string, { gainDb: number; delayS: number }>>(new Map());
  const [seatAt, setSeat] = useKept('room-model voice seat', 0, isIndex);
  const seats = useMemo(() => heardAt({ place }), [place]);
  const chosen = Math.min(seatAt, Math.max(0, seats.length - 1));
  const used = helpers.filter((l) => wish.ids.includes(l.id));
  const middle = seats.length > 0 ? meanPoint(seats.map((s) => s.position)) : wish.talkerAt;
  const azimuthDeg = (Math.atan2(middle.y - wish.talkerAt.y, middle.x - wish.talkerAt.x) * 180) / Math.PI;
  const { temperatureC, relativeHumidityPercent } = place;
  const { value: at, problem } = useJob(
    'coverage.voice',
    seats.length > 0 && used.length > 0
      ? {
          talker: { position: wish.talkerAt, azimuthDeg, voice: wish.voice },
          channels: used.map((l) => runChannel(project, l.id)!),
          signalDbfs: wish.signalDbfs,
          points: Float64Array.from(seats.flatMap(({ position: p }) => [p.x, p.y, p.z])),
          speed: speedOfSound(temperatureC),
          air: { temperatureC, relativeHumidityPercent },
          nearM: wish.nearM,
        }
      : null,
  );
  const proposed = useMemo(
    () => at && proposeVoiceFirst(at, { leadS: wish.leadMs / 1000, louderDb: wish.louderDb }),
    [at, wish.leadMs, wish.louderDb],
  );
  const step = (by: number) => setSeat(Math.max(0, Math.min(seats.length - 1, chosen + by)));
  useKeys({ n: () => step(1), b: () => step(-1) });
  if (!at || !proposed || proposed.length !== used.length)
    return (
      <div className="shed" style={{ gridColumn: '1 / 3' }} role="status">
        <h1>
          {seats.length === 0
            ? 'Nobody sits here yet'
            : used.length === 0
              ? 'Nothing helps the talker yet'
              : 'Listening …'}
        </h1>
        <p>
          {problem ??
            (seats.length === 0
              ? 'Draw an audience, a seat or a spot in Plan.'
              : helpers.length === 0
                ? 'Place loudspeakers in Plan.'
                : used.length === 0
                  ? 'Every loudspeaker was left out.'
                  : '')}
        </p>
        {seats.length > 0 && used.length === 0 && helpers.length > 0 ? (
          <Button onClick={() => set({ ids: helpers.map((l) => l.id) })}>Take all of them</Button>
        ) : null}
      </div>
    );
  const help = proposed.map((h, i) => ({ ...h, ...edited.get(used[i]!.id) }));
  const now = heardFirst(
    at,
    used.map(() => NO_HELP),
  );
  const then = heardFirst(at, help);
  const names = used.map((l) => l.name);
  const seatNames = seats.map((s) => s.name);
  const out = outWords(then, seatNames);
  const edit = (id: string, i: number, change: { gainDb?: number; delayS?: number }) =>
    setEdited(new Map(edited).set(id, { gainDb: help[i]!.gainDb, delayS: help[i]!.delayS, ...change }));
  const asking = (name: string): RunAsking => ({
    name,
    talker: true,
    talkerAt: wish.talkerAt,
    voice: wish.voice,
    sounds: 'speech',
    looking: { alongDeg: null },
    tracedBy: 'browser',
    loudspeakerIds: used.map((l) => l.id),
    signalDbfs: wish.signalDbfs,
    heard: 'about 30 seats',
    accuracy: 'quick',
    own: {},
    noiseDb: 30,
  });
  /** @returns the project as it then is; null where it was not stored */
  const takeOver = async (): Promise<Project | null> => {
    const given = new Map(used.map((l, i) => [l.id, help[i]!]));
    let made: Project | null = null;
    const done = await changeProject('voice first taken over', (p) => {
      const variant = {
        ...variantOf(p),
        id: crypto.randomUUID(),
        name: freeName(
          'Voice first',
          p.variants.map((v) => v.name),
        ),
        note: 'Gain and delay that let the talker be heard first, from Room model.',
        madeAt: Date.now(),
        correction: takeVoiceFirst(variantOf(p).correction, given),
      };
      return (made = { ...p, variants: [...p.variants, variant], variantId: variant.id });
    });
    if (done) setEdited(new Map());
    return done ? made : null;
  };
  const runBoth = async () => {
    // of one seed, so that chance does not tell them apart
    const seed = 1 + Math.floor(Math.random() * 1e9);
    const before = runAsked(project, asking('Voice first, before'), seed);
    if (!(await addRun(before))) return;
    const taken = await takeOver();
    if (!taken) return;
    const after = runAsked(taken, asking('Voice first, after'), seed);
    if (!(await addRun(after))) return;
    runs.setBeside(before.id);
    runs.setShown(after.id);
    notify(`Variant ${variantOf(taken).name} has it. Two runs tell how it sounds before and after.`);
  };
  return (
    <>
      <Halves>
        <div className="plot">
          <VoicePlan
            place={place}
            seats={seats}
            heard={then}
            talkerAt={wish.talkerAt}
            nearM={wish.nearM}
            measured={help.map((h, i) => ({ name: names[i]!, seat: h.seat }))}
            chosen={chosen}
            onChoose={setSeat}
          />
        </div>
        <div className="plot">
          <VoiceWindow
            now={now}
            then={then}
            names={seatNames}
            loudspeakers={help.map((h, i) => ({ name: names[i]!, seat: h.seat }))}
            chosen={chosen}
            onChoose={setSeat}
          />
        </div>
      </Halves>
      <aside className="notes" aria-label="What it says" style={{ overflow: 'auto' }}>
        <h2>
          Voice first<small>keys n, b: seats</small>
        </h2>
        <Note number={1} small="Direct sound, 500 Hz to 4 kHz, A-weighted">
          {voiceSentence(now, then)}
        </Note>
        <Note
          number={2}
          attention={then[chosen]!.verdict === 'an echo' || then[chosen]!.verdict === 'a loudspeaker'}
        >
          {`${seatNames[chosen]!}: ${seatSentence(then[chosen]!, names)}`}
        </Note>
        {out ? (
          <Note number={3} attention>
            {out}
          </Note>
        ) : null}
        <Note number={out ? 4 : 3}>
          Each is measured at the seat where it counts most (square); its delay lets the talker lead wherever
          it is louder than 10 dB below the voice, its level is taken back where all together would leave the
          window.
        </Note>
        <table className="figures" aria-label="What each loudspeaker gets">
          <tbody>
            {used.map((l, i) => (
              <tr key={l.id}>
                <th scope="row" style={{ overflow: 'hidden', textOverflow: 'ellipsis', maxWidth: 96 }}>
                  {l.name}
                </th>
                <td style={{ padding: '2px 2px' }}>
                  <NumberField
                    label={`Gain of ${l.name}`}
                    value={help[i]!.gainDb}
                    unit="dB"
                    min={-80}
                    max={40}
                    step={0.5}
                    width={84}
                    onChange={(gainDb) => edit(l.id, i, { gainDb })}
                  />
                </td>
                <td style={{ padding: '2px 2px' }}>
                  <NumberField
                    label={`Delay of ${l.name}`}
                    value={1000 * help[i]!.delayS}
                    unit="ms"
                    min={0}
                    max={1000}
                    step={0.5}
                    width={88}
                    onChange={(delay) => edit(l.id, i, { delayS: delay / 1000 })}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </aside>
      <div
        className="shore"
        style={{ gridColumn: '1 / 3', gridTemplateColumns: '1fr 1fr 1.1fr', height: 150 }}
      >
        <section className="card" aria-label="The talker">
          <h2>The talker</h2>
          <div className="row">
            <PointFields
              label="Talker"
              at={wish.talkerAt}
              unit={unit}
              onChange={(talkerAt) => set({ talkerAt })}
            />
          </div>
          <div className="row" style={{ gap: 6 }}>
            <NativeSelect
              size="xs"
              aria-label="Voice"
              data={Object.entries(VOICES).map(([value, db]) => ({ value, label: `${value}, ${db} dB(A)` }))}
              value={wish.voice}
              onChange={(e) => set({ voice: e.currentTarget.value as Voice })}
            />
            <LengthField
              label="Near the talker"
              value={wish.nearM}
              unit={unit}
              min={0}
              max={30}
              step={0.5}
              digits={1}
              onChange={(nearM) => set({ nearM })}
            />
          </div>
          <small className="quiet">nearer seats need not hear the talker first</small>
        </section>
        <section className="card" aria-label="How it is to help">
          <h2>How it is to help</h2>
          <div className="row">
            <span>Comes later by</span>
            <NumberField
              label="Comes later by"
              value={wish.leadMs}
              unit="ms"
              min={1}
              max={30}
              step={1}
              onChange={(leadMs) => set({ leadMs })}
            />
          </div>
          <div className="row">
            <span>Louder than the talker by</span>
            <NumberField
              label="Louder than the talker by"
              value={wish.louderDb}
              unit="dB"
              min={-20}
              max={10}
              step={1}
              onChange={(louderDb) => set({ louderDb })}
            />
          </div>
          <div className="row">
            <span>Speech they get</span>
            <NumberField
              label="Speech they get"
              value={wish.signalDbfs}
              unit="dBFS"
              min={-80}
              max={0}
              step={1}
              onChange={(signalDbfs) => set({ signalDbfs })}
            />
          </div>
        </section>
        <section className="card" aria-label="Take it over">
          <h2>
            Take it over
            {edited.size > 0 ? (
              <Button size="compact-xs" variant="default" onClick={() => setEdited(new Map())}>
                As proposed
              </Button>
            ) : null}
          </h2>
          <MultiSelect
            size="xs"
            aria-label="Loudspeakers that help"
            data={helpers.map((l) => ({ value: l.id, label: l.name }))}
            value={wish.ids}
            onChange={(ids) => set({ ids })}
            styles={{ input: { maxHeight: 52, overflow: 'auto' } }}
          />
          <div className="row" style={{ gap: 6 }}>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() =>
                void takeOver().then(
                  (done) =>
                    done &&
                    notify(
                      `Variant ${variantOf(done).name} has it: the level map in Plan and Hand over take it up.`,
                    ),
                )
              }
            >
              As a variant
            </Button>
            <Button size="compact-sm" onClick={() => void runBoth()}>
              Run before and after
            </Button>
          </div>
        </section>
      </div>
    </>
  );
}
