'use client';

import { useEffect, useState } from 'react';
import type { WrittenColumn } from './read-cell';
import type { LotChange } from './use-lots';

type Props = {
  row: number;
  /** Whose cell it is, for those who hear the page. */
  of: string;
  column: WrittenColumn;
  value: string;
  isOpen: boolean;
  isRight: boolean;
  /** What was typed as a change, or why it is none. */
  read: (text: string) => { set: LotChange } | { why: string };
  write: (set: LotChange) => void;
};

/** A cell that is written into; it is kept when one leaves it. Escape brings back what stood there. */
export function LotCell({ row, of, column, value, isOpen, isRight, read, write }: Props) {
  const [text, setText] = useState(value);
  const [why, setWhy] = useState('');
  useEffect(() => {
    setText(value);
    setWhy('');
  }, [value]);
  const keep = () => {
    const typed = text.trim();
    if (typed === value) return setText(value);
    const said = read(typed);
    if ('why' in said) return setWhy(said.why);
    setWhy('');
    return write(said.set);
  };
  if (!isOpen) return <span className={`block truncate px-2 ${isRight ? 'figures text-right' : ''}`}>{value}</span>;
  return (
    <span className="relative block">
      <input
        className={`input input-xs w-full ${isRight ? 'figures text-right' : ''}`}
        aria-label={`${of}: ${column}`}
        aria-invalid={why ? true : undefined}
        title={why || undefined}
        data-row={row}
        data-column={column}
        inputMode={isRight ? 'decimal' : undefined}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          // In the last row Enter leads nowhere, and keeps it all the same.
          if (event.key === 'Enter') return keep();
          if (event.key !== 'Escape') return;
          setText(value);
          setWhy('');
        }}
      />
      {why ? (
        <span
          role="alert"
          className="absolute top-full right-0 z-20 rounded bg-base-100 px-2 py-1 text-[12px] whitespace-nowrap text-error shadow"
        >
          {why}
        </span>
      ) : null}
    </span>
  );
}
