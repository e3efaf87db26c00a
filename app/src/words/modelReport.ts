import { DRAWING_UNITS, type ExaminedModel, type FoundOutline } from '@pebble-hall/core/drawings';
import { areaOf } from '@pebble-hall/core/geometry';
import { listed } from './listed';

/** Names of the units that drawings come in. */
export const UNIT_NAMES: Record<keyof typeof DRAWING_UNITS, string> = {
  m: 'metres',
  cm: 'centimetres',
  mm: 'millimetres',
  ft: 'feet',
  in: 'inches',
};

/** A unit by its name; by its metres where it has none. */
export const unitName = (unitM: number): string => {
  const found = (Object.keys(DRAWING_UNITS) as (keyof typeof DRAWING_UNITS)[]).find(
    (u) => DRAWING_UNITS[u] === unitM,
  );
  return found ? UNIT_NAMES[found] : `units of ${unitM} m`;
};

export interface ReportLine {
  text: string;
  attention?: boolean;
}

/** How high a room is by its model. */
function heightWords(
  { heightM, ceiling, isSimpler }: NonNullable<FoundOutline['above']>,
  length: (m: number) => string,
): string {
  if (isSimpler) return `Its ceiling is taken as level, at its highest point: ${length(heightM)}`;
  if (ceiling.kind === 'flat') return `It is ${length(heightM)} high`;
  const high = length(ceiling.highM);
  return ceiling.kind === 'pitched'
    ? `Walls ${length(heightM)} high, the ceiling rising to ${high}`
    : `Walls ${length(heightM)} high, a ridge of ${high} from ${ceiling.along === 'x' ? 'front to rear' : 'left to right'}`;
}

const counted = (n: number, one: string, many: string) => `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

/** What was understood of a model, and what was not, as sentences. @param length writes metres in the unit of the place */
export function modelReportWords(seen: ExaminedModel, length: (m: number) => string): ReportLine[] {
  const { report, size, said, outline } = seen;
  const lines: ReportLine[] = [];
  const faces =
    report.faces > 0
      ? `${counted(report.faces, 'face', 'faces')} in ${counted(report.surfaces.length, 'surface', 'surfaces')} (${listed(
          report.surfaces.map((s) => s.name),
          4,
        )})`
      : null;
  const strokes = report.lines.reduce((sum, l) => sum + l.count, 0);
  const drawn =
    strokes > 0
      ? `${counted(strokes, 'line', 'lines')} named ${listed(
          report.lines.map((l) => l.name),
          4,
        )}`
      : null;
  lines.push({ text: `${seen.format}: ${[faces, drawn].filter(Boolean).join('; ')}.` });
  const extent = [size.x, size.y, size.z].map(length).join(' × ');
  lines.push(
    said.unitM === seen.unitM
      ? { text: `In ${unitName(seen.unitM)}, as the file says: ${extent}.` }
      : said.unitM !== null
        ? {
            text: `Taken in ${unitName(seen.unitM)}, though the file says ${unitName(said.unitM)}: ${extent}.`,
          }
        : {
            text: `The file does not say its unit. In ${unitName(seen.unitM)} it measures ${extent}.`,
            attention: true,
          },
  );
  if (said.up === null)
    lines.push({ text: `Nor which axis points up: taken as ${seen.up}.`, attention: true });
  if (outline)
    lines.push({
      attention: outline.above?.isSimpler ?? false,
      text:
        outline.from === 'floor'
          ? `Its floor has ${outline.corners.length} corners and ${areaOf(outline.corners).toFixed(1)} m²${
              outline.above === null ? '' : `. ${heightWords(outline.above, length)}`
            }.`
          : `Its largest closed line has ${outline.corners.length} corners and ${areaOf(outline.corners).toFixed(1)} m².`,
    });
  else lines.push({ text: 'No outline in it is closed: draw the corners over it.', attention: true });
  if (report.faces > 0) {
    const { count, edges, longestM } = report.holes;
    lines.push(
      count === 0
        ? { text: 'Closed: every edge belongs to two faces.' }
        : {
            text: `Open in ${counted(count, 'place', 'places')}: ${counted(edges, 'edge belongs', 'edges belong')} to one face only, the longest way round is ${length(longestM)}. To be drawn over, that does no harm.`,
            attention: true,
          },
    );
    if (report.crowded > 0)
      lines.push({
        text: `${counted(report.crowded, 'edge is', 'edges are')} shared by more than two faces.`,
      });
    if (report.flat > 0)
      lines.push({ text: `${counted(report.flat, 'face', 'faces')} without an area left out.` });
  }
  if (seen.edges > seen.ends.length / 6)
    lines.push({
      text: `Of ${seen.edges.toLocaleString('en')} edges the ${(seen.ends.length / 6).toLocaleString('en')} longest are drawn.`,
    });
  if (seen.left.length > 0)
    lines.push({ text: `Left out: ${seen.left.map((l) => `${l.what} (${l.count})`).join(', ')}.` });
  return lines;
}
