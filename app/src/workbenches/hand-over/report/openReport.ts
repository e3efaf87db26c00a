import { variantOf, type Project, type VerifiedStage } from '@pebble-hall/core/project';
import { playedDesigns } from '../../../services/playedDesigns';
import { exported, type ToExport } from '../memories/exports';
import { fileName } from '../../../words/fileName';
import { saveFile } from '../../../services/saveFile';
import { withNonce } from '../../../parts/styleNonce';
import { verdictsOfSpots } from '../verify/spotVerdicts';
import { compareLoad, comparisonGround } from '../verify/compareLoad';

/** Makes the report of a load, or of what is designed, and shows it in a tab of its own, ready to print; it is saved, too. */
export async function openReport(project: Project, what: ToExport): Promise<void> {
  // opened at once, while the click still allows it
  const tab = window.open('', '_blank');
  const { load, held } = await exported(project, what);
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  const { designs, sendsBass } = await playedDesigns(project, variant.correction);
  const at = (stage: VerifiedStage) =>
    compareLoad(comparisonGround(project, load, project.place.spots[0]!.id, stage, held));
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
    sendsBass,
    madeAt: Date.now(),
  });
  if (tab) {
    // a tab that this one opens lives under its policy
    tab.document.write(withNonce(html));
    tab.document.close();
  }
  saveFile(`${fileName(project)}-report.html`, html, 'text/html');
}
