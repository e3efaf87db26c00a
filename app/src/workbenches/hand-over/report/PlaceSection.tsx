import { fittedOf, type Project } from '@pebble-hall/core/project';
import { PlaceDrawing, sizeText } from '../../../drawing';
import { ReportTable } from './ReportTable';

/** The place from above, to scale, with its loudspeakers and spots. */
export function PlaceSection(project: Project) {
  const { place } = project;
  const fitted = fittedOf(project);
  return (
    <>
      <p>
        {sizeText(place)}, {place.temperatureC} °C. {fitted.length} channels, {place.spots.length} spots.
      </p>
      <div className="drawing">
        <PlaceDrawing place={place} stateOf={() => 'empty'} />
      </div>
      <ReportTable
        head={['Channel', 'Model', 'Output', 'x, y, z (m)']}
        rows={fitted.map((l) => [
          l.name,
          l.model,
          l.output,
          [l.position.x, l.position.y, l.position.z].map((v) => v.toFixed(2)).join(', '),
        ])}
      />
    </>
  );
}
