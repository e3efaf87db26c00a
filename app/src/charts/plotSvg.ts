/** A plot as it is saved: with its title, date, axes and legend, for a report or a message. */
export interface SavedPlot {
  title: string;
  /** what else one must know to read it: smoothing, round, date */
  subtitle: string;
  x: SavedAxis;
  y: SavedAxis;
  lines: SavedLine[];
  /** an image that fills the plot, as a data address */
  picture?: string;
}

export interface SavedAxis {
  from: number;
  to: number;
  log: boolean;
  label: string;
  ticks: { at: number; text: string }[];
}

export interface SavedLine {
  label: string;
  /** as CSS understands it */
  colour: string;
  /** as in stroke-dasharray; empty for solid */
  dash: string;
  x: ArrayLike<number>;
  y: ArrayLike<number>;
}

export const SAVED_SIZE = { width: 1200, height: 720 } as const;
const BOX = { left: 70, top: 84, right: 30, bottom: 92 } as const;

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** The plot as an SVG file on white, for print. Points that are no number break a line. */
export function plotSvg({ title, subtitle, x, y, lines, picture }: SavedPlot): string {
  const { width, height } = SAVED_SIZE;
  const [w, h] = [width - BOX.left - BOX.right, height - BOX.top - BOX.bottom];
  const share = ({ from, to, log }: SavedAxis, v: number) =>
    log ? Math.log(v / from) / Math.log(to / from) : (v - from) / (to - from);
  const px = (v: number) => BOX.left + w * share(x, v);
  const py = (v: number) => BOX.top + h * (1 - share(y, v));
  const text = (at: [number, number], size: number, what: string, more = '') =>
    `<text x="${at[0].toFixed(1)}" y="${at[1].toFixed(1)}" font-size="${size}" ${more}>${escaped(what)}</text>`;
  const grid = [
    ...x.ticks.map(({ at, text: t }) => {
      const p = px(at);
      return `<line x1="${p}" x2="${p}" y1="${BOX.top}" y2="${BOX.top + h}" stroke="#ddd"/>${text([p, BOX.top + h + 20], 14, t, 'text-anchor="middle"')}`;
    }),
    ...y.ticks.map(({ at, text: t }) => {
      const p = py(at);
      return `<line y1="${p}" y2="${p}" x1="${BOX.left}" x2="${BOX.left + w}" stroke="#ddd"/>${text([BOX.left - 8, p + 5], 14, t, 'text-anchor="end"')}`;
    }),
  ];
  const paths = lines.map(({ colour, dash, x: xs, y: ys }) => {
    let d = '';
    let joined = false;
    for (let i = 0; i < xs.length; i++) {
      const [vx, vy] = [xs[i]!, ys[i]!];
      if (!Number.isFinite(vx) || !Number.isFinite(vy)) {
        joined = false;
        continue;
      }
      d += `${joined ? 'L' : 'M'}${px(vx).toFixed(1)} ${py(vy).toFixed(1)}`;
      joined = true;
    }
    return `<path d="${d}" fill="none" stroke="${colour}" stroke-width="2"${dash ? ` stroke-dasharray="${dash}"` : ''}/>`;
  });
  let at = BOX.left;
  const legend = lines.map(({ label, colour, dash }) => {
    const mark = `<line x1="${at}" x2="${at + 30}" y1="${height - 24}" y2="${height - 24}" stroke="${colour}" stroke-width="2.5"${dash ? ` stroke-dasharray="${dash}"` : ''}/>`;
    const entry = mark + text([at + 38, height - 19], 14, label);
    at += 64 + 7.6 * label.length;
    return entry;
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="'Atkinson Hyperlegible Next', sans-serif" fill="#22292b">`,
    `<clipPath id="plot"><rect x="${BOX.left}" y="${BOX.top}" width="${w}" height="${h}"/></clipPath>`,
    `<rect width="${width}" height="${height}" fill="#fff"/>`,
    text([BOX.left, 36], 22, title, 'font-weight="700"'),
    text([BOX.left, 60], 14, subtitle, 'fill="#566061"'),
    ...grid,
    text([BOX.left, BOX.top - 8], 13, y.label, 'fill="#566061"'),
    text([BOX.left + w, BOX.top + h + 42], 13, x.label, 'text-anchor="end" fill="#566061"'),
    picture
      ? `<image href="${escaped(picture)}" x="${BOX.left}" y="${BOX.top}" width="${w}" height="${h}" preserveAspectRatio="none"/>`
      : '',
    `<g clip-path="url(#plot)">${paths.join('')}</g>`,
    `<rect x="${BOX.left}" y="${BOX.top}" width="${w}" height="${h}" fill="none" stroke="#999"/>`,
    ...legend,
    '</svg>',
  ].join('\n');
}
