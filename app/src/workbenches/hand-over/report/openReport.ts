import { channelRequests, designGround } from '@pebble-hall/core/jobs';
import {
  filterPart,
  fittedOf,
  variantOf,
  type MemoryLoad,
  type Project,
  type VerifiedStage,
} from '@pebble-hall/core/project';
import { designAll, exactFilters } from '../../../services/exactFilters';
import { readBassSums, withBass } from '../../../services/bassSums';
import { fileName } from '../../../words/fileName';
import { saveFile } from '../../../services/saveFile';
import { verdictsOfSpots } from '../verify/spotVerdicts';
import { compareLoad, comparisonGround } from '../verify/compareLoad';

/** Makes the report of a load and shows it in a tab of its own, ready to print; where that is not allowed, it is saved. */
export async function openReport(project: Project, load: MemoryLoad): Promise<void> {
  // opened at once, while the click still allows it
  const tab = window.open('', '_blank');
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  const ground = designGround(project);
  const { correction } = variant;
  const filters = await exactFilters(ground, filterPart(correction));
  const sums = await readBassSums({ ground, correction, filters });
  const sub = fittedOf(project).find((l) => l.role === 'subwoofer' && filters.designs.has(l.id));
  const alone = await designAll(channelRequests(ground, correction));
  const designs = [...withBass(alone, sums, sub?.id ?? null).values()];
  const at = (stage: VerifiedStage) =>
    compareLoad(comparisonGround(project, load, project.place.spots[0]!.id, stage));
  const comparisons = await at('verified');
  const bassComparisons = await at('verified with bass');
  const spots = await verdictsOfSpots(project, load);
  // what renders it is large, and needed here only
  const { reportHtml } = await import('./reportHtml');
  const html = reportHtml({
    project,
    load,
    comparisons,
    spots,
    withBass: bassComparisons,
    designs,
    sendsBass: new Set(sums.keys()),
    madeAt: Date.now(),
  });
  if (tab) {
    tab.document.write(html);
    tab.document.close();
  }
  saveFile(`${fileName(project)}-report.html`, html, 'text/html');
}
