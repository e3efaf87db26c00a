import { saveFile } from './saveFile';

const WIDE_PX = 1600;

/** A drawing of the page as an SVG file of its own: its colours and pictures written out, on its own ground. */
export async function standaloneSvg(svg: SVGSVGElement): Promise<string> {
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
  for (const image of copy.querySelectorAll('image'))
    image.setAttribute('href', await dataUrl(image.getAttribute('href') ?? ''));
  return copy.outerHTML
    .replace(/var\((--[\w-]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim())
    .replace('<svg', '<svg font-family="Atkinson Hyperlegible Next, sans-serif"');
}

/** What an address of the page shows, written out, so that it is found outside of it. */
async function dataUrl(url: string): Promise<string> {
  const blob = await (await fetch(url)).blob();
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error('a picture under the plan cannot be read.'));
    reader.readAsDataURL(blob);
  });
}

/** The same as a PNG. */
export async function savePicture(svg: SVGSVGElement, name: string): Promise<void> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(await standaloneSvg(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [image.naturalWidth, image.naturalHeight];
  canvas.getContext('2d')!.drawImage(image, 0, 0);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('no picture came. Save it as SVG instead.');
  saveFile(name, new Uint8Array(await blob.arrayBuffer()), 'image/png');
}
