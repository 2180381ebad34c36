'use client';

import type { Field } from '@/core/field/field';
import type { Json } from '@/core/json';
import { Chips } from '@/ui/controls/chips';
import { Lines, Typed } from './typed';

type Props = {
  id: string;
  field: Field;
  label?: string;
  value: Json;
  currency: string;
  write: (value: Json) => void;
  flush: () => void;
  words?: string[];
  lines?: number;
  placeholder?: string;
};

/** A field of the catalogue, with the editor that its kind needs; what is typed is read as the field reads it. */
export function FieldCell({ id, field, label = field.label, value, currency, write, flush, ...rest }: Props) {
  const { kind } = field;
  const context = { currency };
  const shown = field.show(value, context);
  const entries = Array.isArray(value) ? value.map(String) : [];
  const put = (text: string) => {
    const read = field.read(text, context);
    if ('value' in read) write(read.value);
  };
  switch (kind.is) {
    case 'choice':
      return (
        <select
          id={id}
          aria-label={label}
          className="select select-sm w-full"
          value={typeof value === 'string' ? value : ''}
          onChange={(event) => write(event.target.value || field.empty)}
          onBlur={flush}
        >
          <option value="">Choose …</option>
          {kind.choices.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.label}
            </option>
          ))}
        </select>
      );
    case 'date':
      return (
        <input
          id={id}
          type="date"
          aria-label={label}
          className="input input-sm w-full"
          value={shown}
          onChange={(event) => write(event.target.value || field.empty)}
          onBlur={flush}
        />
      );
    case 'list':
      return kind.words ? (
        <Chips
          id={id}
          label={label}
          values={entries}
          max={field.id.startsWith('own.') ? kind.most : undefined}
          change={(words) => {
            write(words.length ? words : field.empty);
            flush();
          }}
        />
      ) : (
        <Lines id={id} label={label} values={entries} change={write} flush={flush} />
      );
  }
  return (
    <Typed
      id={id}
      label={label}
      dir="auto"
      mono={field.traits.mono}
      value={shown}
      parse={(text) => {
        const read = field.read(text, context);
        return 'problem' in read ? read.problem : null;
      }}
      change={put}
      flush={flush}
      long={kind.is === 'text' && kind.lines}
      takesBack={kind.is !== 'text'}
      {...rest}
    />
  );
}
