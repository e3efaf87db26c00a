import { saveFile } from './saveFile';

const WIDE_PX = 1600;

/** A drawing of the page as an SVG file of its own: its colours written out, on its own ground. */
export function standaloneSvg(svg: SVGSVGElement): string {
  const style = getComputedStyle(svg);
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.removeAttribute('style');
  const { x, y, width, height } = svg.viewBox.baseVal;
  copy.setAttribute('width', String(WIDE_PX));
  copy.setAttribute('height', String(Math.round((WIDE_PX * height) / width)));
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [name, value] of Object.entries({ x, y, width, height, fill: 'var(--card)' }))
    ground.setAttribute(name, String(value));
  copy.prepend(ground);
  return copy.outerHTML
    .replace(/var\((--[\w-]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim())
    .replace('<svg', '<svg font-family="Atkinson Hyperlegible Next, sans-serif"');
}

/** The same as a PNG. */
export async function savePicture(svg: SVGSVGElement, name: string): Promise<void> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(standaloneSvg(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [image.naturalWidth, image.naturalHeight];
  canvas.getContext('2d')!.drawImage(image, 0, 0);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('no picture came. Save it as SVG instead.');
  saveFile(name, new Uint8Array(await blob.arrayBuffer()), 'image/png');
}
