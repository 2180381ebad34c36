'use client';

import { useEffect, useState } from 'react';

type TypedProps = {
  value: string;
  label: string;
  id: string;
  parse: (text: string) => string | null;
  change: (text: string) => void;
  flush: () => void;
  mono?: boolean;
  lines?: number;
  /** Proposed while one writes: words that stand in the inventory, or in a marketplace's list. */
  words?: string[];
  placeholder?: string;
  dir?: 'auto';
};

/** A text input that keeps what is typed while it has the focus, and follows the record otherwise. */
export function Typed({
  value,
  label,
  parse,
  change,
  flush,
  mono,
  id,
  lines = 1,
  words,
  placeholder,
  dir,
}: TypedProps) {
  const [text, setText] = useState(value);
  const [focused, setFocused] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    if (!focused) setText(value);
  }, [value, focused]);
  const listed = words?.length ? `${id}-words` : undefined;
  const input = {
    id,
    dir,
    placeholder,
    'aria-label': label,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': problem ? `${id}-problem` : undefined,
    value: text,
    onFocus: () => setFocused(true),
    onBlur: () => {
      setFocused(false);
      if (!problem) flush();
    },
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      const typed = event.target.value.replace(/\n/g, ' ');
      setText(typed);
      const wrong = parse(typed);
      setProblem(wrong);
      if (!wrong) change(typed);
    },
  };
  return (
    <>
      {lines > 1 ? (
        <textarea {...input} rows={lines} className="textarea textarea-sm min-h-0 w-full" />
      ) : (
        <input {...input} list={listed} className={`input input-sm w-full ${mono ? 'mono' : ''}`} />
      )}
      {listed ? (
        <datalist id={listed}>
          {words?.map((word) => (
            <option key={word} value={word} />
          ))}
        </datalist>
      ) : null}
      {problem ? (
        <p id={`${id}-problem`} className="mt-0.5 text-error">
          {problem}
        </p>
      ) : null}
    </>
  );
}

/** Several lines of text, as typed. */
export function LongText({
  id,
  label,
  value,
  change,
  flush,
}: {
  id: string;
  label: string;
  value: string;
  change: (text: string) => void;
  flush: () => void;
}) {
  return (
    <textarea
      id={id}
      aria-label={label}
      dir="auto"
      className="textarea textarea-sm min-h-0 w-full"
      rows={2}
      value={value}
      onChange={(event) => change(event.target.value)}
      onBlur={flush}
    />
  );
}

/** Lines of a list, one a line; what is typed stays as it is while it is being typed. */
export function Lines({
  id,
  label,
  values,
  change,
  flush,
}: {
  id: string;
  label: string;
  values: string[];
  change: (values: string[]) => void;
  flush: () => void;
}) {
  const [text, setText] = useState('');
  const [focused, setFocused] = useState(false);
  return (
    <textarea
      id={id}
      aria-label={`${label}, one a line`}
      dir="auto"
      className="textarea textarea-sm min-h-0 w-full"
      rows={2}
      value={focused ? text : values.join('\n')}
      onFocus={() => {
        setText(values.join('\n'));
        setFocused(true);
      }}
      onBlur={() => {
        setFocused(false);
        flush();
      }}
      onChange={(event) => {
        setText(event.target.value);
        change(
          event.target.value
            .split('\n')
            .map((one) => one.trim())
            .filter(Boolean),
        );
      }}
    />
  );
}
