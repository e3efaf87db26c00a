import { variantOf, type MemoryLoad, type Project } from '@pebble-hall/core/project';
import { channelRequests, designAll, provideDesigns } from '../../parts/designs';
import { fileName } from '../../parts/FrameHeader';
import { saveFile } from '../../parts/saveFile';
import { reportHtml } from './report';
import { verdictsOfSpots } from './spotVerdicts';
import { compareLoad } from './compareLoad';

/** Makes the report of a load and shows it in a tab of its own, ready to print; where that is not allowed, it is saved. */
export async function openReport(project: Project, load: MemoryLoad): Promise<void> {
  // opened at once, while the click still allows it
  const tab = window.open('', '_blank');
  const variant = project.variants.find((v) => v.id === load.variantId) ?? variantOf(project);
  await provideDesigns(project, variant.correction);
  const designs = [...(await designAll(channelRequests(project, variant.correction))).values()];
  const comparisons = await compareLoad(project, load, project.place.spots[0]!.id);
  const withBass = await compareLoad(project, load, project.place.spots[0]!.id, 'verified with bass');
  const spots = await verdictsOfSpots(project, load);
  const html = reportHtml({ project, load, comparisons, spots, withBass, designs, madeAt: Date.now() });
  if (tab) {
    tab.document.write(html);
    tab.document.close();
  }
  saveFile(`${fileName(project)}-report.html`, html, 'text/html');
}
