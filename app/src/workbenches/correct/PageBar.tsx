import { SegmentedControl } from '@mantine/core';
import { memo } from 'react';
import { LOOKS, PAGES, type Look, type Page } from './pages';

interface PageBarProps {
  page: Page;
  look: Look;
  /** what is worked on says what is shown */
  lookFixed: boolean;
  onPage: (page: Page) => void;
  onLook: (look: Look) => void;
}

/** What is worked on, and what the plot shows. Not drawn again while a hand is in the plot. */
export const PageBar = memo(function PageBar({ page, look, lookFixed, onPage, onLook }: PageBarProps) {
  return (
    <>
      <SegmentedControl
        size="xs"
        aria-label="What is worked on"
        data={[...PAGES]}
        value={page}
        onChange={(v) => onPage(v as Page)}
      />
      <SegmentedControl
        size="xs"
        aria-label="What the plot shows"
        data={[...LOOKS]}
        value={look}
        onChange={(v) => onLook(v as Look)}
        disabled={lookFixed}
      />
    </>
  );
});
