import { ActionIcon, Button, Select, TextInput } from '@mantine/core';
import { writeWav } from '@pebble-hall/core/formats';
import { freeName, type ListeningChain, type Project } from '@pebble-hall/core/project';
import { IconTrash } from '../../icons';
import { useRef, useState } from 'react';
import { FilePicker } from '../../parts/FilePicker';
import { NumberField } from '../../parts/NumberField';
import { saveFile } from '../../services/saveFile';
import { notify, notifyProblem } from '../../services/notify';
import type { Change } from '../../services/changeProject';
import type { ListedDevice } from '../../ports/rig';
import { sentenceOf } from '../../store';
import { candidatesOf, HEADPHONES, type Place } from './candidates';
import { RATE } from '../../services/listenMaterial';
import { SYSTEM_OUTPUT, useOutputs } from './useOutputs';

interface ChainsCardProps {
  project: Project;
  change: Change;
  place: Place;
  chain: ListeningChain | null;
  /** what the rig plays on: a new chain begins there */
  rigOutput: { id: string; name: string };
  /** chosen headphones, when it is heard on them */
  headphonesId: string | null;
  onChain: (id: string | null) => void;
  rendering: (file: File, chain: ListeningChain) => Promise<Float32Array[]>;
}

const slug = (name: string) => name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '');

/** Outputs that a chain can be set to; its own stays in the list while it is unplugged. */
const offeredOutputs = (
  outputs: ListedDevice[],
  { outputId, outputName }: ListeningChain,
): ListedDevice[] => [
  SYSTEM_OUTPUT,
  ...outputs,
  ...(outputId === '' || outputs.some((d) => d.id === outputId)
    ? []
    : [{ id: outputId, name: `${outputName}, not there now` }]),
];

/** Listening chains: output, channels, correction, strength, phase and trim under a name; and rendering a file through one. */
export function ChainsCard({
  project,
  change,
  place,
  chain,
  rigOutput,
  headphonesId,
  onChain,
  rendering,
}: ChainsCardProps) {
  const picker = useRef<HTMLInputElement>(null);
  const [name, setName] = useState('');
  const [busy, setBusy] = useState(false);
  const { outputs, ask } = useOutputs();
  const save = () => {
    const wanted = name.trim() || 'Chain';
    const id = crypto.randomUUID();
    const variant = project.variants.find((v) => v.id === project.variantId)!;
    const made: ListeningChain = {
      id,
      name: freeName(
        wanted,
        project.chains.map((c) => c.name),
      ),
      source: place.through === 'headphones' ? HEADPHONES : variant.id,
      leftId: place.leftId,
      rightId: place.rightId,
      strength: 1,
      style: variant.correction.filter.style,
      trimDb: 0,
      through: place.through,
      headphonesId: place.through === 'headphones' ? headphonesId : null,
      outputId: rigOutput.id,
      outputName: rigOutput.name,
    };
    setName('');
    void change(`listening chain ${made.name}`, (p) => ({ ...p, chains: [...p.chains, made], chainId: id }));
  };
  const set = (label: string, next: Partial<ListeningChain>) =>
    void change(`${label} of chain ${chain!.name}`, (p) => ({
      ...p,
      chains: p.chains.map((c) => (c.id === chain!.id ? { ...c, ...next } : c)),
    }));
  const render = async (file: File) => {
    setBusy(true);
    try {
      const sounds = await rendering(file, chain!);
      const stem = file.name.replace(/\.[^.]+$/, '');
      saveFile(`${stem}-through-${slug(chain!.name)}.wav`, writeWav(sounds, RATE), 'audio/wav');
      notify(`${file.name} was rendered through ${chain!.name}. Its name says so.`);
    } catch (error) {
      notifyProblem(`Not rendered: ${sentenceOf(error)}`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <section className="card" aria-label="Listening chains">
      <h2>
        Listening chain
        <Select
          size="xs"
          w={150}
          aria-label="Chain in use"
          data={[
            { value: '', label: 'none' },
            ...project.chains.map((c) => ({ value: c.id, label: c.name })),
          ]}
          allowDeselect={false}
          value={project.chainId ?? ''}
          onChange={(v) => onChain(v || null)}
        />
      </h2>
      {chain ? (
        <>
          <div className="row" style={{ gap: 5 }}>
            <Select
              size="xs"
              style={{ flex: 1 }}
              aria-label="Correction of the chain"
              allowDeselect={false}
              disabled={chain.source === HEADPHONES}
              data={[
                ...candidatesOf(project).map((c) => ({ value: c.source, label: c.name })),
                ...(chain.source === HEADPHONES ? [{ value: HEADPHONES, label: 'of the headphones' }] : []),
              ]}
              value={chain.source}
              onChange={(v) => v && set('correction', { source: v })}
            />
            <Select
              size="xs"
              w={96}
              aria-label="Phase of the chain"
              allowDeselect={false}
              data={['minimum', 'mixed', 'linear']}
              value={chain.style}
              onChange={(v) => v && set('phase', { style: v as ListeningChain['style'] })}
            />
            <ActionIcon
              variant="default"
              aria-label={`Delete chain ${chain.name}`}
              onClick={() =>
                void change(`deleting chain ${chain.name}`, (p) => ({
                  ...p,
                  chainId: null,
                  chains: p.chains.filter((c) => c.id !== chain.id),
                }))
              }
            >
              <IconTrash size={15} />
            </ActionIcon>
          </div>
          <div className="row" style={{ justifyContent: 'flex-start', gap: 5 }}>
            <NumberField
              label="Strength of the chain"
              value={Math.round(100 * chain.strength)}
              unit="%"
              min={0}
              max={100}
              step={5}
              digits={0}
              width={74}
              onChange={(v) => set('strength', { strength: v / 100 })}
            />
            <NumberField
              label="Trim of the chain"
              value={chain.trimDb}
              unit="dB"
              min={-40}
              max={6}
              step={0.5}
              width={80}
              onChange={(trimDb) => set('trim', { trimDb })}
            />
            <Button
              size="compact-sm"
              variant="default"
              loading={busy}
              onClick={() => picker.current?.click()}
            >
              Render a file
            </Button>
          </div>
          <div className="row" style={{ gap: 5 }}>
            <Select
              size="xs"
              style={{ flex: 1 }}
              aria-label="Output of the chain"
              allowDeselect={false}
              data={offeredOutputs(outputs, chain).map((d) => ({ value: d.id, label: d.name }))}
              value={chain.outputId}
              onChange={(v) => {
                const found = offeredOutputs(outputs, chain).find((d) => d.id === v);
                if (found && found.id !== chain.outputId)
                  set('output', { outputId: found.id, outputName: found.name });
              }}
            />
            {outputs.length === 0 ? (
              <Button
                size="compact-sm"
                variant="default"
                title="The browser names its outputs once an audio input is allowed"
                onClick={() => void ask()}
              >
                Other outputs
              </Button>
            ) : null}
          </div>
        </>
      ) : (
        <div className="row">
          <TextInput
            size="xs"
            style={{ flex: 1 }}
            aria-label="Name of the chain"
            placeholder="Name of a new chain"
            maxLength={60}
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
            onKeyDown={(e) => e.key === 'Enter' && save()}
          />
          <Button
            size="compact-sm"
            variant="default"
            disabled={place.through === 'headphones' && headphonesId === null}
            onClick={save}
          >
            Save as chain
          </Button>
        </div>
      )}
      <small className="quiet">For monitoring only: never print it into a recording.</small>
      <FilePicker
        label="File to render"
        accept="audio/*"
        picker={picker}
        onFile={(file) => void render(file)}
      />
    </section>
  );
}
