'use client';

import { type CustomField, customFieldFault, ownText, readOwn } from '@/core/item/custom-fields';
import type { Item, ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import { Chips } from '@/ui/controls/chips';
import { fine, LongText, Typed } from './typed';

type Props = { id: string; field: CustomField; item: Item; change: (patch: ItemPatch) => void; flush: () => void };

/** A field of one's own, with the editor that its kind needs and its limits. */
export function CustomFieldCell({ id, field, item, change, flush }: Props) {
  const value = item.own[field.key] ?? null;
  const write = (next: Json) => {
    const { [field.key]: _old, ...rest } = item.own;
    change({ own: next === null ? rest : { ...rest, [field.key]: next } });
  };
  const fault = (text: string) => {
    const read = readOwn(field, text);
    return read === undefined ? `${field.label} is a number` : customFieldFault(field, read);
  };
  switch (field.type) {
    case 'choice':
      return (
        <select
          id={id}
          aria-label={field.label}
          className="select select-sm w-full"
          value={ownText(value)}
          onChange={(event) => write(event.target.value || null)}
          onBlur={flush}
        >
          <option value="">Choose …</option>
          {field.choices.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      );
    case 'date':
      return (
        <input
          id={id}
          type="date"
          aria-label={field.label}
          className="input input-sm w-full"
          value={ownText(value)}
          onChange={(event) => write(event.target.value || null)}
          onBlur={flush}
        />
      );
    case 'tags':
      return (
        <Chips
          id={id}
          label={field.label}
          values={Array.isArray(value) ? value.map(String) : []}
          max={field.most ?? undefined}
          change={(words) => {
            write(words.length ? words : null);
            flush();
          }}
        />
      );
    case 'long':
      return (
        <LongText
          id={id}
          label={field.label}
          value={ownText(value)}
          change={(text) => write(text || null)}
          flush={flush}
        />
      );
    default:
      return (
        <Typed
          id={id}
          label={field.label}
          value={ownText(value)}
          parse={fault ?? fine}
          change={(text) => write(readOwn(field, text) ?? null)}
          flush={flush}
        />
      );
  }
}
