import { Button, Slider, Switch } from '@mantine/core';
import type { Project, Underlay } from '@pebble-hall/core/project';
import { LengthField } from '../../../parts/LengthField';
import { NumberField } from '../../../parts/NumberField';
import { useUnderlays } from '../../../services/underlays';
import { NameField } from '../NameField';
import { PositionFields } from '../PositionFields';
import { editPlace } from '../usePlan';
import { withItsOutline } from './layUnder';
import { TakenFields } from './TakenFields';

/** A drawing by others by its numbers: where it lies, how large it is, what becomes of it. */
export function UnderlayCard({ project, underlay }: { project: Project; underlay: Underlay }) {
  const { place } = project;
  const unit = place.lengthUnit;
  const { seen } = useUnderlays(place);
  const look = seen.get(underlay.id);
  const set = (label: string, next: Partial<Underlay>) =>
    void editPlace(`${underlay.name}: ${label}`, (p) => ({
      ...p,
      underlays: p.underlays.map((u) => (u.id === underlay.id ? ({ ...u, ...next } as Underlay) : u)),
    }));
  const outline = look?.kind === 'model' ? look.outline : null;
  return (
    <>
      <section className="card" aria-label="Drawing by others">
        <h2>
          <NameField
            label="Name of the drawing"
            value={underlay.name}
            onChange={(name) => set(`is ${name} now`, { name })}
          />
          <Switch
            size="xs"
            label="shown"
            checked={underlay.isShown}
            onChange={(e) =>
              set(e.currentTarget.checked ? 'shown' : 'hidden', { isShown: e.currentTarget.checked })
            }
          />
        </h2>
        <PositionFields at={underlay.at} unit={unit} onChange={(at) => set('position', { at })} />
        <small className="quiet">Where its middle lies; chosen, it is dragged, too.</small>
      </section>
      <section className="card" aria-label="Size and turn">
        <h2>Size and turn</h2>
        <div className="row">
          <span>Turned to the left</span>
          <NumberField
            label="Turned to the left"
            value={underlay.turnDeg}
            unit="°"
            min={-360}
            max={360}
            step={1}
            width={84}
            onChange={(turnDeg) => set('turned', { turnDeg })}
          />
        </div>
        {underlay.kind === 'picture' ? (
          <>
            <div className="row">
              <span>The picture is wide</span>
              <LengthField
                label="Width of the picture"
                value={underlay.widthPx * underlay.metresPerPixel}
                unit={unit}
                min={0.01}
                onChange={(m) => set('size', { metresPerPixel: m / underlay.widthPx })}
              />
            </div>
            <div className="row">
              <span>Strength</span>
              <Slider
                thumbLabel="Strength of the picture"
                size="sm"
                w={110}
                min={0.1}
                max={1}
                step={0.1}
                label={(v) => `${Math.round(100 * v)} %`}
                defaultValue={underlay.opacity}
                onChangeEnd={(opacity) => set('strength', { opacity })}
              />
            </div>
          </>
        ) : (
          <>
            <TakenFields
              unitM={underlay.unitM}
              up={underlay.up}
              onChange={(more) => set('unit and axes', more as Partial<Underlay>)}
            />
            <Button
              size="compact-sm"
              variant="default"
              disabled={!outline}
              title={outline ? undefined : 'No outline in it is closed'}
              onClick={() =>
                outline &&
                void editPlace(`the room along ${underlay.name}`, (p) => withItsOutline(p, underlay, outline))
              }
            >
              Its outline becomes the room
            </Button>
          </>
        )}
      </section>
    </>
  );
}
