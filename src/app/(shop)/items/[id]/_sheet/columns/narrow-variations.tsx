'use client';

import { useState } from 'react';
import type { Item } from '@/core/item/item';
import type { Json } from '@/core/json';
import { fitVariations, readNarrowing } from '@/core/listing/fit/variations';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';

type Props = {
  item: Item;
  column: SheetColumn;
  field: SheetField;
  save: (value: Json | undefined) => Promise<void>;
  /** What would be saved now. */
  pending: (value: Json | undefined) => void;
  close: () => void;
  narrowing?: Json;
};

/** What of the combinations this marketplace gets: all, those of one value, or a single one. */
export function NarrowVariations({ item, column, field, save, pending, close }: Props) {
  const [chosen, setChosen] = useState<Record<string, string>>(() => readNarrowing(column.narrowing));
  const fitted = fitVariations(item, column.variations, chosen);
  return (
    <div className="space-y-2">
      {column.variations ? (
        <p className="quiet text-[12px]">
          {column.name} takes {column.variations.maxAxes} axes and {column.variations.maxCombinations} combinations.
        </p>
      ) : (
        <p className="quiet text-[12px]">
          {column.name} takes no variations. Choose the one combination that is offered here, make items of their own in
          the table of variations, or leave the item out here.
        </p>
      )}
      {item.axes.map((axis, index) => (
        <label key={axis.name} className="flex items-center gap-2">
          <span className="w-28 truncate">{axis.name}</span>
          <select
            // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to choose
            autoFocus={index === 0}
            className="select select-sm flex-1"
            value={chosen[axis.name] ?? ''}
            onChange={(event) => {
              const { [axis.name]: _old, ...rest } = chosen;
              const next = event.target.value ? { ...rest, [axis.name]: event.target.value } : rest;
              setChosen(next);
              pending(Object.keys(next).length ? next : undefined);
            }}
          >
            <option value="">All</option>
            {axis.values.map((value) => (
              <option key={value}>{value}</option>
            ))}
          </select>
        </label>
      ))}
      <p className={`text-[12px] ${fitted.problem ? 'text-warning' : 'quiet'}`}>
        {fitted.problem ?? `${fitted.rows.length} combinations are offered here`}
      </p>
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          onClick={() => void save(Object.keys(chosen).length ? chosen : undefined)}
        >
          Keep for {column.name}
        </button>
        {field.origin === 'override' ? (
          <button type="button" className="btn btn-sm" onClick={() => void save(undefined)}>
            Offer all again
          </button>
        ) : null}
        <button type="button" className="btn btn-ghost btn-sm" onClick={close}>
          Cancel
        </button>
      </div>
    </div>
  );
}
