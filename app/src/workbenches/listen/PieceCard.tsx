import { Button, Checkbox, Select } from '@mantine/core';
import type { NoiseBand } from '@pebble-hall/core/auralisation';
import { useRef } from 'react';
import { BandFields } from '../../parts/BandFields';
import { FilePicker } from '../../parts/FilePicker';
import { NumberField } from '../../parts/NumberField';
import { notifyProblem } from '../../services/notify';
import { sentenceOf } from '../../store';
import { fileMaterial, OWN_MATERIALS, type Material, type MaterialKind } from '../../services/listenMaterial';
import { LEAST_SECTION_S, MOST_SECTION_S, movedSection, type Section } from './section';

interface PieceCardProps {
  kind: MaterialKind | 'own';
  material: Material | null;
  section: Section;
  lengthS: number;
  loops: boolean;
  matched: boolean;
  onKind: (kind: MaterialKind) => void;
  /** of the noise of a band, Hz */
  band: NoiseBand;
  onBand: (band: NoiseBand) => void;
  onOwn: (material: Material) => void;
  onSection: (section: Section) => void;
  onLoops: (loops: boolean) => void;
  onMatched: (matched: boolean) => void;
}

/** What is heard, which part of it, and how. */
export function PieceCard(props: PieceCardProps) {
  const { kind, material, section, lengthS, loops, matched } = props;
  const picker = useRef<HTMLInputElement>(null);
  const read = (file: File) =>
    fileMaterial(file)
      .then(props.onOwn)
      .catch((error: unknown) => notifyProblem(sentenceOf(error)));
  return (
    <section className="card" aria-label="Piece">
      <h2>Piece</h2>
      <div className="row">
        <Select
          size="xs"
          style={{ flex: 1 }}
          aria-label="Piece to hear"
          allowDeselect={false}
          data={[
            ...OWN_MATERIALS,
            ...(kind === 'own' && material ? [{ value: 'own', label: material.name }] : []),
          ]}
          value={kind}
          onChange={(v) => v && props.onKind(v as MaterialKind)}
        />
        <Button size="compact-sm" variant="default" onClick={() => picker.current?.click()}>
          Own file
        </Button>
      </div>
      {kind === 'band' ? (
        <div className="row" style={{ justifyContent: 'flex-start', gap: 6 }}>
          <BandFields
            names={['Noise from', 'Noise to']}
            band={props.band}
            min={20}
            least={1.1}
            width={74}
            onChange={props.onBand}
          />
        </div>
      ) : null}
      <div className="row" style={{ justifyContent: 'flex-start', gap: 6 }}>
        <span>From</span>
        <NumberField
          label="Section from"
          value={section.fromS}
          unit="s"
          min={0}
          max={Math.max(0, lengthS - LEAST_SECTION_S)}
          step={0.5}
          width={74}
          onChange={(fromS) => props.onSection(movedSection(section, { fromS }, lengthS))}
        />
        <span>to</span>
        <NumberField
          label="Section to"
          value={section.toS}
          unit="s"
          min={LEAST_SECTION_S}
          max={Math.max(lengthS, LEAST_SECTION_S)}
          step={0.5}
          width={74}
          onChange={(toS) => props.onSection(movedSection(section, { toS }, lengthS))}
        />
        {lengthS > MOST_SECTION_S ? (
          <small className="quiet">
            of {Math.round(lengthS)} s, {MOST_SECTION_S} s at a time
          </small>
        ) : null}
      </div>
      <div className="row" style={{ justifyContent: 'flex-start', gap: 14 }}>
        <Checkbox
          size="xs"
          label="Loop"
          checked={loops}
          onChange={(e) => props.onLoops(e.currentTarget.checked)}
        />
        <Checkbox
          size="xs"
          label="Matched in loudness"
          checked={matched}
          onChange={(e) => props.onMatched(e.currentTarget.checked)}
        />
      </div>
      <FilePicker label="Sound file" accept="audio/*" picker={picker} onFile={(file) => void read(file)} />
    </section>
  );
}
