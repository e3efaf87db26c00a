import { theProcessor } from '../../services/theProcessor';
import { SegmentedControl } from '@mantine/core';
import { memo } from 'react';
import { LOOKS, PAGES, type Look, type Page } from './pages';

interface PageBarProps {
  page: Page;
  look: Look;
  /** what can be shown of what is looked at; none when what is worked on says what is shown */
  looks: readonly Look[];
  onPage: (page: Page) => void;
  onLook: (look: Look) => void;
}

/** What is worked on, and what the plot shows. Not drawn again while a hand is in the plot. */
export const PageBar = memo(function PageBar({ page, look, looks, onPage, onLook }: PageBarProps) {
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="What is worked on"
        data={PAGES.filter((p) => p !== 'Bass' || theProcessor().profile.bassManagement)}
        value={page}
        onChange={(v) => onPage(v as Page)}
      />
      <SegmentedControl
        size="xs"
        aria-label="What the plot shows"
        data={LOOKS.map((l) => ({ value: l, label: l, disabled: !looks.includes(l) }))}
        value={look}
        onChange={(v) => onLook(v as Look)}
        disabled={looks.length === 0}
      />
    </>
  );
});
