import { Button } from '@mantine/core';
import { type ListeningChain, type Project, fittedOf, sweepOf } from '@pebble-hall/core/project';
import { useEffect, useMemo, useState } from 'react';
import { formatDb } from '../../charts/chartMath';
import { ResponseChart, type ChartTrace, type Smoothing } from '../../charts/ResponseChart';
import { notifyProblem } from '../../services/notify';
import { changeProject } from '../../services/changeProject';
import { sentenceOf } from '../../store';
import { BlindCard } from './BlindCard';
import { candidatesOf, headphoneCandidates, playingOwnBass, type Place } from './candidates';
import { ChainsCard } from './ChainsCard';
import { HeadphonesCard } from './HeadphonesCard';
import { HeardNotes } from './HeardNotes';
import {
  fileMaterial,
  MOST_RENDERED_S,
  RATE,
  type Material,
  type MaterialKind,
  shippedMaterial,
} from '../../services/listenMaterial';
import { formatHz } from '../../charts/chartMath';
import { PieceCard } from './PieceCard';
import { grid, useHeardLevels } from './useHeardLevels';
import { firstSection, type Section } from './section';
import { useHeadphones } from './useHeadphones';
import { SYSTEM_OUTPUT } from './useOutputs';
import { heardFrom } from '../../services/heardFrom';
import { runJob } from '../../services/jobs';
import { useListening, type ListenRequest } from './useListening';
import { usePlayAgain } from './usePlayAgain';
import { WhereCard } from './WhereCard';

const COLOURS = ['trace-slate', 'trace-kelp', 'trace-buoy', 'trace-heather', 'trace-gorse', 'trace-mussel'];
const MOST_STONES = 6;
/** Where mains and subwoofers meet, mostly. */
const START_BAND = { from: 40, to: 160 };

/** Is it better, and is it only louder? */
export default function ListenWorkbench({ project }: { project: Project }) {
  const change = changeProject;
  const listening = useListening(project);
  const spots = project.place.spots;
  const channels = fittedOf(project).filter((l) => spots.some((s) => sweepOf(project, s.id, l.id)));
  const full = channels.filter((l) => l.role === 'full range');
  const chain = project.chains.find((c) => c.id === project.chainId) ?? null;
  const [asked] = useState(() => heardFrom(location.hash));
  const isThere = (id: string | undefined) => channels.find((l) => l.id === id)?.id;
  const [chosen, setChosen] = useState<Place>({
    spotId: spots.find((s) => s.id === asked?.spotId)?.id ?? spots[0]!.id,
    leftId: isThere(asked?.leftId) ?? (full[0] ?? channels[0])?.id ?? '',
    rightId: isThere(asked?.rightId) ?? (full[1] ?? full[0] ?? channels[0])?.id ?? '',
    alsoIds: asked?.alsoIds.filter(isThere) ?? [],
    through: 'room',
  });
  const place: Place = chain
    ? { ...chosen, leftId: chain.leftId, rightId: chain.rightId, alsoIds: [], through: chain.through }
    : chosen;
  const [headphonesId, setHeadphonesId] = useState<string | null>(null);
  const headphones =
    place.through === 'headphones'
      ? (project.headphones.find((h) => h.id === (chain?.headphonesId ?? headphonesId)) ?? null)
      : null;
  const corrected = useHeadphones(headphones);
  const [kind, setKind] = useState<MaterialKind | 'own'>(asked ? 'band' : 'story');
  const [band, setBand] = useState(asked?.band ?? START_BAND);
  const [material, setMaterial] = useState<Material | null>(null);
  const [section, setSection] = useState<Section | null>(null);
  const [loops, setLoops] = useState(true);
  const [matched, setMatched] = useState(true);
  const [blind, setBlind] = useState(false);
  useEffect(() => {
    if (kind === 'own') return;
    let current = true;
    shippedMaterial(kind, { ...band, name: `Noise, ${formatHz(band.from)} to ${formatHz(band.to)}` })
      .then((m) => {
        if (!current) return;
        setMaterial(m);
        setSection(null);
      })
      .catch((error: unknown) => current && notifyProblem(sentenceOf(error)));
    return () => {
      current = false;
    };
  }, [kind, band]);
  const all = useMemo(
    () =>
      chain
        ? [
            { source: 'as-found', name: 'as found, no chain' },
            { source: chain.source, name: chain.name },
          ]
        : chosen.through === 'headphones'
          ? headphoneCandidates(headphones?.name ?? 'headphones')
          : candidatesOf(project).slice(0, MOST_STONES),
    [project, chain, chosen.through, headphones?.name],
  );
  const lengthS = (material?.channels[0]?.length ?? 0) / RATE;
  const cut = section ?? firstSection(lengthS);
  const levels = useHeardLevels(project, all, place, chain);
  const [smoothing, setSmoothing] = useState<Smoothing>(6);
  const rendered = listening.heard?.rendered;
  /** What a candidate was changed by when it was rendered last; 0 before, and when that was something else. */
  const trimOf = (name: string): number | null => {
    const i = listening.heard?.candidates.findIndex((c) => c.name === name) ?? -1;
    return matched && i >= 0 ? rendered!.trimDb[i]! : null;
  };
  /** what was rendered last is what is offered now */
  const heardOfThese = listening.heard?.candidates.every((c) => all.some((a) => a.name === c.name)) ?? false;
  const traces: ChartTrace[] = levels.list.map(({ name, left }, i) => ({
    id: name,
    label: name,
    role: i === 0 ? 'reference' : 'predicted',
    colour: COLOURS[i % COLOURS.length]!,
    levels: left.map((v) => v + (trimOf(name) ?? 0)),
  }));
  const onEar: ChartTrace[] = corrected
    ? [
        {
          id: 'found',
          label: 'as they are',
          role: 'measured',
          colour: 'trace-mussel',
          levels: corrected.foundDb,
        },
        {
          id: 'predicted',
          label: 'as left (predicted)',
          role: 'predicted',
          colour: 'trace-heather',
          levels: corrected.predictedDb,
        },
      ]
    : [];
  const request = (candidates = all): ListenRequest | null =>
    material && { candidates, chain, place, material, section: cut, matched, loops, corrected };
  const at = Math.min(listening.at, all.length - 1);
  const heardNow = all[at];
  const ownBass = heardNow ? playingOwnBass(project, heardNow, place) : [];

  const again = usePlayAgain(listening, project.chainId, (first) => {
    const next = request();
    if (next) void listening.play(next, first);
  });
  /** What is heard is prepared anew; not while a blind trial is under way, which has candidates of its own. */
  const playAgain = () => !blind && again(at);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = (event.target as Element | null)?.closest?.('input, textarea');
      if (typing || event.ctrlKey || event.metaKey || event.altKey || blind) return;
      const digit = Number(event.key);
      if (digit >= 1 && digit <= all.length) listening.hear(digit - 1);
      else if (event.key === 'c' && project.chains.length > 0) stepChain();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  });
  /** The next chain, and after the last one none. */
  const stepChain = () => {
    const ids = [...project.chains.map((c) => c.id), null];
    const next = ids[(ids.indexOf(project.chainId) + 1) % ids.length]!;
    setChain(next);
  };
  const setChain = (id: string | null) => {
    again(id ? 1 : 0, id);
    const name = project.chains.find((c) => c.id === id)?.name;
    void change(name ? `listening through ${name}` : 'listening without a chain', (p) => ({
      ...p,
      chainId: id,
    }));
  };

  if (channels.length === 0)
    return (
      <div className="shed">
        <h1>Nothing to listen to yet</h1>
        <p>
          Listening goes through the responses that were measured. Take some in the{' '}
          <a className="linkish" href="/mic-walk">
            Mic walk
          </a>
          .
        </p>
      </div>
    );

  const nameOf = (id: string) => channels.find((l) => l.id === id)?.name ?? id;
  return (
    <div
      className="work"
      style={{
        gridTemplateColumns: 'minmax(0, 1fr) 300px',
        gridTemplateRows: '58px minmax(0, 1fr) auto',
        height: '100%',
      }}
    >
      <div className="chips" style={{ gridColumn: '1 / 3', gap: 12 }} role="group" aria-label="What is heard">
        <Button
          size="md"
          disabled={
            !material || listening.work !== null || blind || (place.through === 'headphones' && !corrected)
          }
          onClick={() => (listening.playing ? listening.stop() : void listening.play(request()!, at))}
        >
          {listening.playing ? 'Stop' : 'Play'}
        </Button>
        {blind ? (
          <span className="quiet">Blind: what is behind the stones is not told until the end.</span>
        ) : (
          all.map((c, i) => (
            <button
              key={c.name}
              className="chip"
              style={{ padding: '8px 16px', fontSize: 15, borderRadius: '46% 54% 44% 56% / 60% 48% 52% 40%' }}
              aria-pressed={i === at}
              onClick={() => listening.hear(i)}
            >
              <small className="mono">{i + 1}</small> {c.name}
              {trimOf(c.name) !== null ? <small className="mono">{formatDb(trimOf(c.name)!)}</small> : null}
            </button>
          ))
        )}
        <span style={{ flex: 1 }} />
        <span className="mono" role="timer" aria-label="Position">
          {(cut.fromS + listening.positionS).toFixed(1)} of {lengthS.toFixed(1)} s
        </span>
      </div>
      <div className="plot">
        {blind ? (
          <div style={{ display: 'grid', placeItems: 'center', height: '100%' }}>
            <p className="quiet" style={{ maxWidth: 420, textAlign: 'center' }}>
              The plot is covered while the ears decide. Step on a stone to hear it, as often as you like;
              then choose.
            </p>
          </div>
        ) : (
          <ResponseChart
            label={`${nameOf(place.leftId)} as it is heard ${place.through === 'room' ? `at ${spots.find((s) => s.id === place.spotId)?.name ?? ''}` : 'at the output'}`}
            title={`Heard, ${[place.leftId, ...(place.alsoIds ?? [])].map(nameOf).join(' and ')}`}
            frequency={grid}
            traces={place.through === 'headphones' ? onEar : traces}
            target={place.through === 'headphones' ? (corrected?.targetDb ?? null) : null}
            smoothing={smoothing}
            onSmoothing={setSmoothing}
          />
        )}
      </div>
      <HeardNotes
        where={{
          piece: material?.name ?? null,
          through: place.through,
          left: nameOf(place.leftId),
          right: nameOf(place.rightId),
          also: (place.alsoIds ?? []).map(nameOf),
          spot: spots.find((s) => s.id === place.spotId)?.name ?? '',
          headphones,
          distance: corrected?.distance ?? null,
        }}
        candidates={blind ? null : all.length}
        heard={blind || !heardOfThese ? null : listening.heard}
        matched={matched}
        ownBass={
          place.through === 'output' && !blind && heardNow && ownBass.length > 0
            ? { name: heardNow.name, channels: ownBass }
            : null
        }
        chain={chain?.name ?? null}
        problem={levels.problem}
        work={listening.work}
      />
      <div
        className="shore"
        style={{
          gridColumn: '1 / 3',
          gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1.05fr) minmax(0, 1.1fr) minmax(0, 1.15fr)',
        }}
      >
        <PieceCard
          kind={kind}
          material={material}
          section={cut}
          lengthS={lengthS}
          loops={loops}
          matched={matched}
          onKind={setKind}
          band={band}
          onBand={setBand}
          onOwn={(own) => {
            setKind('own');
            setMaterial(own);
            setSection(null);
          }}
          onSection={(next) => {
            setSection(next);
            playAgain();
          }}
          onLoops={(next) => {
            setLoops(next);
            playAgain();
          }}
          onMatched={(next) => {
            setMatched(next);
            playAgain();
          }}
        />
        <WhereCard
          place={place}
          byChain={chain !== null}
          spots={spots}
          channels={channels}
          onPlace={(next) => {
            setChosen({ ...chosen, ...next });
            if (next.through === undefined) playAgain();
            else listening.stop();
          }}
        >
          <HeadphonesCard
            project={project}
            change={change}
            chosen={headphones}
            onChoose={setHeadphonesId}
            responseOf={(samples, rate) => runJob('listen.responseLevels', { samples, rate })}
          />
        </WhereCard>
        <BlindCard
          key={place.through}
          project={project}
          change={change}
          candidates={
            place.through === 'headphones'
              ? headphoneCandidates(headphones?.name ?? 'headphones')
              : candidatesOf(project)
          }
          active={blind}
          onActive={setBlind}
          spotName={spots.find((s) => s.id === place.spotId)?.name ?? ''}
          material={material?.name ?? ''}
          matched={matched}
          disabled={!material || chain !== null || (place.through === 'headphones' && !corrected)}
          onPlay={(candidates, first) => {
            const r = request(candidates);
            if (r) void listening.play({ ...r, loops: true }, first);
          }}
          onHear={listening.hear}
          onStop={listening.stop}
          ready={listening.playing && listening.work === null}
        />
        <ChainsCard
          project={project}
          change={change}
          place={place}
          chain={chain}
          headphonesId={headphones?.id ?? null}
          rigOutput={
            project.rig.kind === 'web audio' && project.rig.device
              ? { id: project.rig.device.outputId, name: project.rig.device.outputName }
              : SYSTEM_OUTPUT
          }
          onChain={setChain}
          rendering={async (file: File, through: ListeningChain) => {
            const own = await fileMaterial(file, MOST_RENDERED_S);
            const candidates = [{ source: through.source, name: through.name }];
            const made = await listening.render({
              candidates,
              chain: through,
              place: {
                ...place,
                leftId: through.leftId,
                rightId: through.rightId,
                through: through.through === 'headphones' ? 'headphones' : 'output',
              },
              material: own,
              section: { fromS: 0, toS: own.channels[0]!.length / RATE },
              matched: false,
              loops: false,
              ownLevel: true,
              corrected,
            });
            return made.rendered.sounds[0]!;
          }}
        />
      </div>
    </div>
  );
}
