import type { RefObject } from 'react';

interface FilePickerProps {
  /** what the file is, for those who cannot see the button that opens it */
  label: string;
  accept: string;
  /** clicked by the button beside it */
  picker: RefObject<HTMLInputElement | null>;
  onFile: (file: File) => void;
}

/** The hidden half of a button that asks for a file; the same file can be chosen twice in a row. */
export const FilePicker = ({ label, accept, picker, onFile }: FilePickerProps) => (
  <input
    ref={picker}
    type="file"
    accept={accept}
    aria-label={label}
    style={{ display: 'none' }}
    onChange={(event) => {
      const file = event.target.files?.[0];
      event.target.value = '';
      if (file) onFile(file);
    }}
  />
);
