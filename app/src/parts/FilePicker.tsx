import type { RefObject } from 'react';

interface FilePickerProps {
  /** what the file is, for those who cannot see the button that opens it */
  label: string;
  accept: string;
  /** clicked by the button beside it */
  picker: RefObject<HTMLInputElement | null>;
  /** asked with the first of them, where one is wanted */
  onFile?: (file: File) => void;
  /** asked with all, where several may be chosen */
  onFiles?: (files: File[]) => void;
}

/** The hidden half of a button that asks for a file; the same file can be chosen twice in a row. */
export const FilePicker = ({ label, accept, picker, onFile, onFiles }: FilePickerProps) => (
  <input
    ref={picker}
    type="file"
    accept={accept}
    aria-label={label}
    multiple={onFiles !== undefined}
    style={{ display: 'none' }}
    onChange={(event) => {
      const files = [...(event.target.files ?? [])];
      event.target.value = '';
      if (files.length === 0) return;
      onFile?.(files[0]!);
      onFiles?.(files);
    }}
  />
);
