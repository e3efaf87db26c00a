import { Button, NativeSelect } from '@mantine/core';
import type { ReactNode } from 'react';

interface Props {
  names: readonly string[];
  index: number;
  onChoose: (index: number) => void;
  step: (by: number) => void;
  children?: ReactNode;
}

/** The receiver that is looked at, and the way to the next one. */
export const WhereCard = ({ names, index, onChoose, step, children }: Props) => (
  <section className="card" aria-label="Where">
    <h2>
      Where<small>{`${index + 1} of ${names.length}`}</small>
    </h2>
    <div className="row" style={{ gap: 6 }}>
      <NativeSelect
        size="xs"
        aria-label="Receiver"
        data={names.map((label, i) => ({ value: String(i), label }))}
        value={String(index)}
        onChange={(e) => onChoose(Number(e.currentTarget.value))}
        style={{ flex: 1 }}
      />
      <Button size="compact-xs" variant="default" disabled={index === 0} onClick={() => step(-1)}>
        Back
      </Button>
      <Button
        size="compact-xs"
        variant="default"
        disabled={index >= names.length - 1}
        onClick={() => step(1)}
      >
        Next
      </Button>
    </div>
    {children}
  </section>
);
