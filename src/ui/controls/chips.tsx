'use client';

import { X } from 'lucide-react';
import { useState } from 'react';

type Props = {
  label: string;
  values: string[];
  change: (values: string[]) => void;
  /** Shown behind the count. */
  max?: number;
  id?: string;
  autoFocus?: boolean;
  onDone?: () => void;
  /** A word is written otherwise by a double click; what it belongs to stays with it. */
  rename?: (from: string, to: string) => void;
};

/** Words as chips: Enter or a comma adds one, Backspace in the empty field takes the last one back. */
export function Chips({ label, values, change, max, id, autoFocus, onDone, rename }: Props) {
  const [text, setText] = useState('');
  const [renamed, setRenamed] = useState<string | null>(null);
  const add = (typed: string) => {
    const words = typed
      .split(/[,\n\t]/)
      .map((one) => one.trim())
      .filter((one) => one !== '' && !values.some((other) => other.toLowerCase() === one.toLowerCase()));
    setText('');
    if (words.length) change([...values, ...words]);
  };
  return (
    <div className="flex flex-wrap items-center gap-1 rounded border border-base-300 bg-base-100 px-1 py-0.5 focus-within:outline-2 focus-within:outline-primary">
      {values.map((value, index) => (
        <span key={value} className="flex items-center rounded bg-base-200 pl-1.5 text-[12px]">
          {rename && renamed === value ? (
            <input
              // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to write in it
              autoFocus
              aria-label={`${value} is written`}
              className="w-24 bg-base-100 px-1"
              defaultValue={value}
              onBlur={(event) => {
                setRenamed(null);
                if (event.target.value.trim() !== value) rename(value, event.target.value);
              }}
              onKeyDown={(event) => {
                if (event.key === 'Enter') {
                  event.preventDefault();
                  event.currentTarget.blur();
                } else if (event.key === 'Escape') {
                  event.stopPropagation();
                  event.currentTarget.value = value;
                  event.currentTarget.blur();
                }
              }}
            />
          ) : rename ? (
            <button
              type="button"
              tabIndex={-1}
              title="Double click: write it otherwise"
              aria-label={`Write ${value} otherwise`}
              onDoubleClick={() => setRenamed(value)}
              onKeyDown={(event) => event.key === 'Enter' && setRenamed(value)}
            >
              {value}
            </button>
          ) : (
            value
          )}
          <button
            type="button"
            tabIndex={-1}
            className="px-1"
            aria-label={`Remove ${value}`}
            onClick={() => change(values.filter((_, at) => at !== index))}
          >
            <X size={11} aria-hidden="true" />
          </button>
        </span>
      ))}
      <input
        id={id}
        aria-label={`${label}, separated by commas`}
        // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to write in it
        autoFocus={autoFocus}
        className="min-w-16 flex-1 bg-transparent px-1 py-1 outline-none"
        value={text}
        onChange={(event) => (/[,\n]/.test(event.target.value) ? add(event.target.value) : setText(event.target.value))}
        onPaste={(event) => {
          const pasted = event.clipboardData.getData('text/plain');
          if (!/[,\n\t]/.test(pasted)) return;
          event.preventDefault();
          add(text + pasted);
        }}
        onBlur={() => text.trim() && add(text)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && text.trim()) {
            event.preventDefault();
            event.stopPropagation();
            add(text);
          } else if (event.key === 'Enter' && onDone) {
            event.preventDefault();
            onDone();
          } else if (event.key === 'Backspace' && text === '' && values.length) change(values.slice(0, -1));
        }}
      />
      {max === undefined ? null : (
        <span className={`figures px-1 text-[11px] ${values.length > max ? 'text-error' : 'quiet'}`}>
          {values.length}/{max}
        </span>
      )}
    </div>
  );
}
