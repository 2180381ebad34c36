'use client';

import { useEffect, useRef, useState } from 'react';

type TypedProps = {
  value: string;
  label: string;
  id: string;
  parse: (text: string) => string | null;
  change: (text: string) => void;
  flush: () => void;
  mono?: boolean;
  lines?: number;
  /** Lines are kept as they are typed. */
  long?: boolean;
  /** What was read of the beginning of something that turns out to be wrong is taken back. */
  takesBack?: boolean;
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
  long = false,
  takesBack = false,
  words,
  placeholder,
  dir,
}: TypedProps) {
  const [text, setText] = useState(value);
  const [focused, setFocused] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  /** What stood there when the writing began. */
  const before = useRef(value);
  useEffect(() => {
    // What is wrong stays to be mended.
    if (!focused && !problem) setText(value);
  }, [value, focused, problem]);
  const listed = words?.length ? `${id}-words` : undefined;
  const input = {
    id,
    dir,
    placeholder,
    'aria-label': label,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': problem ? `${id}-problem` : undefined,
    value: text,
    onFocus: () => {
      setFocused(true);
      if (!problem) before.current = value;
    },
    onBlur: () => {
      setFocused(false);
      if (!problem) flush();
    },
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      const typed = long ? event.target.value : event.target.value.replace(/\n/g, ' ');
      setText(typed);
      const wrong = parse(typed);
      setProblem(wrong);
      if (!wrong) change(typed);
      else if (takesBack && !problem && text !== before.current) change(before.current);
    },
  };
  return (
    <>
      {long || lines > 1 ? (
        <textarea {...input} rows={long ? 2 : lines} className="textarea textarea-sm min-h-0 w-full" />
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
