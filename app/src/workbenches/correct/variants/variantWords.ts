import type { Variant } from '@pebble-hall/core/project';

/** What a variant is made of, in one line. */
export function variantWords({ correction: c }: Pick<Variant, 'correction'>): string {
  const { form, style, sectionCount } = c.filter;
  const sections = `${sectionCount} ${sectionCount === 1 ? 'section' : 'sections'}`;
  return [
    form === 'sections' ? sections : form === 'both' ? `${sections} and ${style} phase` : `${style} phase`,
    `${Math.round(100 * c.strength)} %`,
    `+${c.maxBoostDb} / −${c.maxCutDb} dB`,
    Object.keys(c.subs).length > 0 ? 'subs together' : '',
    Object.keys(c.alignment).length > 0 ? 'aligned' : '',
    Object.values(c.crossovers).some((x) => x.highPass || x.lowPass) ? 'bass managed' : '',
    Object.keys(c.allPasses).length > 0 ? 'with all-passes' : '',
    c.lowChannel ? 'low-frequency channel' : '',
    { off: 'no headroom guard', programme: '', 'full scale': 'guarded for full scale' }[c.headroomGuard],
  ]
    .filter(Boolean)
    .join(', ');
}
