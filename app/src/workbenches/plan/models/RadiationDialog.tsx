import { Button, Modal } from '@mantine/core';
import type { Loudspeaker, Place } from '@pebble-hall/core/project';
import { speedOfSound } from '@pebble-hall/core/room';
import { runJob, type AskedModel } from '../../../services/jobs';
import { useDerived } from '../../../services/useDerived';
import { modelOf } from '../../../services/placeModels';
import { removeModel } from './ownModels';
import { RadiationPlots } from './RadiationPlots';

interface RadiationDialogProps {
  place: Place;
  loudspeaker: Loudspeaker;
  onClose: () => void;
}

const work = (inputs: { model: AskedModel; speed: number }, { signal }: { signal: AbortSignal }) =>
  runJob('coverage.radiation', inputs, { signal });

/** How a channel's loudspeaker radiates, and what that rests on. */
export function RadiationDialog({ place, loudspeaker, onClose }: RadiationDialogProps) {
  const asked = loudspeaker.model;
  const model = modelOf(place, loudspeaker);
  const own = 'source' in model ? model : null;
  const speed = speedOfSound(place.temperatureC);
  const { value: shown, problem } = useDerived({ model, speed }, work);
  const remove = async () => {
    if (own && (await removeModel(own))) onClose();
  };
  return (
    <Modal opened onClose={onClose} title={`How ${model.name} radiates`} size={1000} centered>
      {problem ? <p role="alert">{problem}</p> : null}
      <div className="row" style={{ alignItems: 'start', margin: '0 0 10px' }}>
        <p style={{ margin: 0 }} aria-label="What it is">
          {asked === model.name ? '' : `${asked} is not in the library: it is taken as ${model.name}. `}
          {shown ? `${shown.about}. ` : ''}
          {model.sensitivityDb} dB for 2.83 V, {model.largestDb} dB at the most, both at 1 m.{' '}
          <span className="quiet">{restsOn(model)}</span>
        </p>
        {own ? (
          <Button size="compact-sm" variant="default" onClick={() => void remove()}>
            Remove it
          </Button>
        ) : null}
      </div>
      {shown ? (
        <RadiationPlots view={shown.view} largestDb={model.largestDb} />
      ) : problem ? null : (
        <p className="quiet">Working it out …</p>
      )}
    </Modal>
  );
}

function restsOn(model: AskedModel): string {
  if (!('source' in model)) return 'Worked out from its radiators, not measured.';
  switch (model.source.kind) {
    case 'guess':
      return 'Guessed, not measured.';
    case 'traces':
      return 'Measured by you; what lies between the angles is interpolated.';
    default:
      return 'As its file says; what lies between the directions is interpolated.';
  }
}
