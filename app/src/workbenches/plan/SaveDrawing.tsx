import { ActionIcon, Menu } from '@mantine/core';
import { IconDownload } from '../../icons';
import type { Place } from '@pebble-hall/core/project';
import type { RefObject } from 'react';
import type { View } from '../../drawing';
import { notifyProblem } from '../../services/notify';
import { savePicture, standaloneSvg } from '../../services/saveDrawing';
import { saveFile } from '../../services/saveFile';

/** Saves or prints the drawing as it is seen. */
export function SaveDrawing({
  frame,
  place,
  view,
}: {
  frame: RefObject<HTMLElement | null>;
  place: Place;
  view: View | '3D';
}) {
  const name = `${place.name.replace(/[^\p{L}\p{N}]+/gu, '-')}-${view}`;
  const isThree = view === '3D';
  /** what is seen in 3D, as a picture that stands in a page */
  const scene = () => {
    const found = frame.current?.querySelector('canvas');
    if (!found) throw new Error('there is no scene to save.');
    return found.toDataURL('image/png');
  };
  const svg = () => {
    const found = frame.current?.querySelector('svg');
    if (!found) throw new Error('there is no drawing to save.');
    return found;
  };
  const guarded = (run: () => void | Promise<void>) => () => {
    void (async () => run())().catch((error: unknown) =>
      notifyProblem(`The drawing was not saved: ${error instanceof Error ? error.message : 'unknown'}`),
    );
  };
  return (
    <Menu position="bottom-end" shadow="sm">
      <Menu.Target>
        <ActionIcon variant="default" aria-label="Save or print the drawing">
          <IconDownload size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        {isThree ? null : (
          <Menu.Item
            onClick={guarded(async () =>
              saveFile(`${name}.svg`, await standaloneSvg(svg()), 'image/svg+xml'),
            )}
          >
            As SVG
          </Menu.Item>
        )}
        <Menu.Item
          onClick={guarded(() =>
            isThree
              ? fetch(scene())
                  .then((r) => r.arrayBuffer())
                  .then((bytes) => saveFile(`${name}.png`, new Uint8Array(bytes), 'image/png'))
              : savePicture(svg(), `${name}.png`),
          )}
        >
          As PNG
        </Menu.Item>
        <Menu.Item
          onClick={guarded(async () =>
            printDrawing(isThree ? `<img src="${scene()}" alt="">` : await standaloneSvg(svg()), place.name),
          )}
        >
          Print
        </Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** On a page of its own, as wide as the paper. */
function printDrawing(drawing: string, title: string): void {
  const page = document.createElement('iframe');
  page.title = title;
  page.style.display = 'none';
  page.srcdoc = `<title>${title.replace(/</g, '&lt;')}</title><style>@page{size:landscape}svg,img{width:100%;max-height:95vh}</style>${drawing}`;
  page.onload = () => {
    page.contentWindow!.addEventListener('afterprint', () => page.remove());
    page.contentWindow!.print();
  };
  document.body.append(page);
}
