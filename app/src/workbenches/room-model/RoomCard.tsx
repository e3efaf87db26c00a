import { MOST_TEXT } from '@pebble-hall/core/formats';
import { Button, Menu } from '@mantine/core';
import { MATERIALS, readMaterials, USUAL_SCATTERING, writeMaterials } from '@pebble-hall/core/materials';
import type { Surface } from '@pebble-hall/core/place';
import { freeName, type Place } from '@pebble-hall/core/project';
import type { RoomStatistics } from '@pebble-hall/core/room';
import { useRef, useState } from 'react';
import { lengthText, unitM } from '../../drawing';
import { FilePicker } from '../../parts/FilePicker';
import { NumberField } from '../../parts/NumberField';
import { notify, notifyProblem } from '../../services/notify';
import { saveFile } from '../../services/saveFile';
import { sentenceOf } from '../../store';
import { changePlace } from './changeSurface';
import { MeshDialog } from './MeshDialog';
import { VariantMenu } from './VariantMenu';

interface Props {
  place: Place;
  volume: number;
  statistics: RoomStatistics;
  chosen: Surface;
}

const START_S = 1;
const MOST_OWN = 500;

/** The room in figures, the time that is wanted, and materials of one's own. */
export function RoomCard({ place, volume, statistics, chosen }: Props) {
  const picker = useRef<HTMLInputElement>(null);
  const [takes, setTakes] = useState(false);
  const models = place.underlays.filter((u) => u.kind === 'model');
  const { lengthUnit, wantedS, materials } = place;
  const scale = unitM(lengthUnit);
  const unit = lengthUnit === 'ft' ? 'ft' : 'm';
  const read = async (file: File) => {
    try {
      if (file.size > MOST_TEXT) throw new Error('It is too large for a table of materials.');
      const found = readMaterials(await file.text());
      const done = await changePlace(`${found.length} materials from ${file.name}`, (p) => {
        const names = p.materials.map((m) => m.name);
        const added = found.map((m) => {
          const name = freeName(m.name, [...names, ...MATERIALS.map((k) => k.name)]);
          names.push(name);
          return {
            id: crypto.randomUUID(),
            name,
            absorption: m.absorption,
            scattering: m.scattering ?? USUAL_SCATTERING,
          };
        });
        if (p.materials.length + added.length > MOST_OWN)
          throw new Error(`A place holds ${MOST_OWN} materials of its own at most.`);
        return { ...p, materials: [...p.materials, ...added] };
      });
      if (done)
        notify(
          `${found.length === 1 ? '1 material' : `${found.length} materials`}: choose them under "Our own".`,
        );
    } catch (error) {
      notifyProblem(`${file.name}: ${sentenceOf(error)}`);
    }
  };
  const keep = () =>
    void changePlace(`material from ${chosen.name}`, (p) => {
      const name = freeName(
        chosen.name,
        [...p.materials, ...MATERIALS].map((m) => m.name),
      );
      const { absorption, scattering } = chosen;
      return { ...p, materials: [...p.materials, { id: crypto.randomUUID(), name, absorption, scattering }] };
    });
  const rows = [
    ['Volume', `${(volume / scale ** 3).toFixed(0)} ${unit === 'ft' ? 'cu ft' : 'm³'}`],
    ['Surface', `${(statistics.surface / scale ** 2).toFixed(0)} ${unit === 'ft' ? 'sq ft' : 'm²'}`],
    ['From wall to wall, mean', lengthText(statistics.meanFreePathM, lengthUnit)],
    [
      'Swallows at 1 kHz as',
      `${(statistics.area[4]! / scale ** 2).toFixed(0)} ${unit === 'ft' ? 'sq ft' : 'm²'}`,
    ],
  ] as const;
  return (
    <section className="card" aria-label="The room" style={{ overflow: 'auto' }}>
      <h2>The room</h2>
      {rows.map(([name, value]) => (
        <div className="row" key={name}>
          <span>{name}</span>
          <span className="mono">{value}</span>
        </div>
      ))}
      <div className="row">
        <span>Wanted</span>
        {wantedS === null ? (
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => void changePlace('reverberation time wanted', (p) => ({ ...p, wantedS: START_S }))}
          >
            Say how long
          </Button>
        ) : (
          <NumberField
            label="Wanted time"
            value={wantedS}
            unit="s"
            digits={2}
            min={0.05}
            max={30}
            step={0.1}
            width={86}
            onChange={(s) => void changePlace('reverberation time wanted', (p) => ({ ...p, wantedS: s }))}
          />
        )}
      </div>
      {models.length > 0 || place.roomMesh ? (
        <div className="row">
          <span>Modelled</span>
          <Menu position="top-end">
            <Menu.Target>
              <Button size="compact-xs" variant="default">
                {place.roomMesh ? place.roomMesh.name : 'as drawn'}
              </Button>
            </Menu.Target>
            <Menu.Dropdown>
              {models.length > 0 ? (
                <Menu.Item onClick={() => setTakes(true)}>A drawing under the plan as the room …</Menu.Item>
              ) : null}
              {place.roomMesh ? (
                <Menu.Item
                  onClick={() => void changePlace('the room as drawn', (p) => ({ ...p, roomMesh: null }))}
                >
                  The room as it is drawn
                </Menu.Item>
              ) : null}
            </Menu.Dropdown>
          </Menu>
        </div>
      ) : null}
      {takes ? <MeshDialog place={place} models={models} onClose={() => setTakes(false)} /> : null}
      <div className="row" style={{ justifyContent: 'flex-start', gap: 6, flexWrap: 'wrap' }}>
        <Menu position="top-start">
          <Menu.Target>
            <Button size="compact-xs" variant="default" style={{ flexShrink: 0 }}>
              Materials
            </Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={keep}>Keep {chosen.name} as a material</Menu.Item>
            <Menu.Item onClick={() => picker.current?.click()}>From a text table …</Menu.Item>
            <Menu.Item
              onClick={() =>
                saveFile('materials.txt', writeMaterials([...materials, ...MATERIALS]), 'text/plain')
              }
            >
              All as a text table
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
        {materials.length > 0 ? <small className="quiet">{materials.length} of our own</small> : null}
        <span style={{ flex: 1 }} />
        <VariantMenu place={place} />
      </div>
      <FilePicker
        label="Table of materials"
        accept=".txt,.csv,.tsv,text/plain"
        picker={picker}
        onFile={(file) => void read(file)}
      />
    </section>
  );
}
