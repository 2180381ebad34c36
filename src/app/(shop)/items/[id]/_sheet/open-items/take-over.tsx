'use client';

import { useState } from 'react';
import { itemFieldEntries, itemFieldIds, takeable } from '@/core/field/item-fields';
import type { Item, ItemField } from '@/core/item/item';
import type { OpenItem } from '@/services/items/find-open-items';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';

/** What the catalogue lets travel from one piece to another. */
const offered = itemFieldIds
  .filter((field) => takeable(field))
  .map((field): { field: ItemField; label: string } => ({ field, label: itemFieldEntries[field].label }));

const says = (value: unknown): boolean =>
  value !== null &&
  value !== '' &&
  !(Array.isArray(value) && value.length === 0) &&
  !(typeof value === 'object' && value !== null && Object.keys(value).length === 0);

type Props = { item: Item; others: OpenItem[]; settle: () => Promise<unknown>; close: () => void };

/** Takes all or chosen fields of this item over into others of the sitting. */
export function TakeOver({ item, others, settle, close }: Props) {
  const filled = offered.filter(({ field }) => says(item[field]));
  const [fields, setFields] = useState<ItemField[]>(() =>
    filled.map((one) => one.field).filter((field) => field !== 'title' && field !== 'location'),
  );
  const [to, setTo] = useState<number[]>(() => others.filter((one) => one.unfinished).map((one) => one.id));
  const toggle = <T,>(list: T[], one: T) =>
    list.includes(one) ? list.filter((other) => other !== one) : [...list, one];
  const go = useCommand(async () => {
    await settle();
    const { changed, unchanged } = await api('POST /items/take-over', { body: { from: item.id, fields, to } });
    close();

    return `${counted(changed.length, 'item')} changed${unchanged.length ? `, ${unchanged.length} were like that already` : ''}`;
  });
  return (
    <Dialog title={`Take over from “${item.title || item.sku}”`} close={close}>
      <div className="grid grid-cols-2 gap-6">
        <fieldset>
          <legend className="mb-1 flex w-full items-baseline gap-2 font-medium">
            Fields
            <button
              type="button"
              className="font-normal underline"
              onClick={() => setFields(fields.length === filled.length ? [] : filled.map((one) => one.field))}
            >
              {fields.length === filled.length ? 'none' : 'all'}
            </button>
          </legend>
          {filled.map(({ field, label }) => (
            <label key={field} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={fields.includes(field)}
                onChange={() => setFields(toggle(fields, field))}
              />
              {label}
            </label>
          ))}
        </fieldset>
        <fieldset>
          <legend className="mb-1 font-medium">Into</legend>
          {others.map((other) => (
            <label key={other.id} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={to.includes(other.id)}
                onChange={() => setTo(toggle(to, other.id))}
              />
              <span className="truncate">{other.title || other.sku}</span>
            </label>
          ))}
        </fieldset>
      </div>
      {go.problem ? (
        <p role="alert" className="mt-2 text-error">
          {go.problem}
        </p>
      ) : null}
      <button
        type="button"
        className="btn btn-primary btn-sm mt-4"
        disabled={fields.length === 0 || to.length === 0}
        onClick={() => void go.run()}
      >
        Take {fields.length} fields over into {to.length} {to.length === 1 ? 'item' : 'items'}
      </button>
    </Dialog>
  );
}
