import { memo, type ReactNode } from 'react';

/** A numbered note that reads the picture beside it aloud. */
export const Note = memo(function Note({
  number,
  attention,
  children,
  small,
}: {
  number: number;
  attention?: boolean;
  children: ReactNode;
  small?: ReactNode;
}) {
  return (
    <div className="note">
      <span className={`note-number${attention ? ' attention' : ''}`}>{number}</span>
      <div>
        {children}
        {small ? <small>{small}</small> : null}
      </div>
    </div>
  );
});
