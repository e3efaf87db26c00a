import { ActionIcon, Menu } from '@mantine/core';
import { IconDownload } from '../icons';
import { plotSvg, SAVED_SIZE, type SavedPlot } from './plotSvg';
import { saveFile } from '../services/saveFile';
import { notifyProblem } from '../services/notify';

const fileName = (title: string) => title.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '');

async function savePng(plot: SavedPlot): Promise<void> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(plotSvg(plot))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [2 * SAVED_SIZE.width, 2 * SAVED_SIZE.height];
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('no picture came');
  saveFile(`${fileName(plot.title)}.png`, new Uint8Array(await blob.arrayBuffer()), 'image/png');
}

/** Saves the plot beside it, with title, date and legend on it. */
export function SavePlotMenu({ plot }: { plot: () => SavedPlot }) {
  return (
    <Menu position="bottom-end" shadow="sm">
      <Menu.Target>
        <ActionIcon variant="default" aria-label="Save this plot">
          <IconDownload size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item
          onClick={() => saveFile(`${fileName(plot().title)}.svg`, plotSvg(plot()), 'image/svg+xml')}
        >
          As SVG, for print
        </Menu.Item>
        <Menu.Item
          onClick={() =>
            void savePng(plot()).catch(() =>
              notifyProblem('The picture could not be made in this browser. Save it as SVG instead.'),
            )
          }
        >
          As PNG
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
