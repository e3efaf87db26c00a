/** The colour of a trace, beside its name. @param colour a variable of the look, without its dashes */
export const TraceMark = ({ colour }: { colour: string }) => (
  <span
    aria-hidden="true"
    style={{ width: 14, height: 4, borderRadius: 2, background: `var(--${colour})` }}
  />
);
