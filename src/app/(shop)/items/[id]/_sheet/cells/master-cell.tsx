'use client';

import { fieldValue, withFieldValue } from '@/core/field/item-values';
import { type Item, type ItemPatch, isPatchable } from '@/core/item/item';
import type { Json } from '@/core/json';
import { textLength } from '@/core/listing/fit/text-length';
import type { Words } from '@/services/records/items/known-words';
import type { SheetRow } from '../rows';
import { FieldCell } from './field-cell';
import { NoteSentences } from './note-sentences';
import { SizeCell } from './parcel-cell';
import { RichTextBox } from './rich-text-box';
import { StockCell } from './stock-cell';
import { StockNumberCell } from './stock-number-cell';

type Props = {
  row: SheetRow;
  item: Item;
  words: Words | undefined;
  change: (patch: ItemPatch) => void;
  flush: () => void;
  settle: () => Promise<unknown>;
  stockMoved: () => void;
  openVariations: () => void;
  /** Nothing of it is stored yet. */
  isNew: boolean;
  /** The longest title that every account looked at takes whole; null where none has a limit. */
  titleMax: number | null;
};

/** The part of the item that holds a field: attributes and own fields are saved with those beside them. */
function patchOf(item: Item, id: string, value: Json): ItemPatch {
  const part = id.startsWith('attributes.') ? 'attributes' : id.startsWith('own.') ? 'own' : id;
  return isPatchable(part) ? { [part]: withFieldValue(item, id, value)[part] } : {};
}

/** The item's own value, always open for writing. */
export function MasterCell({
  row,
  item,
  words,
  change,
  flush,
  settle,
  stockMoved,
  openVariations,
  isNew,
  titleMax,
}: Props) {
  const { field } = row;
  const id = masterId(row.id);
  if (!field || field.id === 'photos' || field.id === 'clip')
    return <span className="sr-only">Only marketplaces have it</span>;
  switch (field.id) {
    case 'sku':
      return isNew ? (
        <span className="quiet">given with the first thing that you say of it</span>
      ) : (
        <StockNumberCell
          id={id}
          itemId={item.id}
          value={item.sku}
          change={(sku) => change({ sku })}
          flush={flush}
          settle={settle}
          moved={stockMoved}
        />
      );
    case 'description':
      return (
        <RichTextBox label={row.label} value={item.description} change={(description) => change({ description })} />
      );
    case 'lengthMm':
      return <SizeCell id={id} item={item} change={change} flush={flush} />;
    case 'quantity':
      if (isNew) return <span className="figures">1</span>;
      return item.axes.length ? (
        <span>
          <b className="figures font-medium" data-testid="stock">
            {item.quantity}
          </b>{' '}
          <button type="button" className="underline" onClick={openVariations}>
            in {item.variations.filter((one) => one.on).length} variations
          </button>
        </span>
      ) : (
        <StockCell item={item} moved={stockMoved} />
      );
    case 'variations':
      return (
        <button id={id} type="button" className="underline" onClick={openVariations}>
          {item.axes.length
            ? `${item.axes.map((axis) => axis.name).join(' × ')}: ${item.variations.filter((one) => one.on).length} of ${item.variations.length} on`
            : 'None; make some'}
        </button>
      );
  }
  const length = field.id === 'title' && titleMax !== null ? textLength(item.title) : null;
  const labels = { money: `${row.label} in ${item.currency}`, weight: `${row.label}, with its unit` };
  const cell = (
    <FieldCell
      id={id}
      field={field}
      label={field.kind.is === 'money' || field.kind.is === 'weight' ? labels[field.kind.is] : row.label}
      value={fieldValue(item, field.id)}
      currency={item.currency}
      write={(value) => change(patchOf(item, field.id, value))}
      flush={flush}
      words={row.words ?? (field.id in (words ?? {}) ? words?.[field.id as keyof Words] : undefined)}
      lines={field.id === 'title' ? 2 : 1}
      placeholder={field.kind.is === 'weight' ? '540 g or 1 lb 3 oz' : undefined}
    />
  );
  if (field.id === 'conditionNote')
    return (
      <>
        {cell}
        <NoteSentences item={item} write={(conditionNote) => change({ conditionNote })} />
      </>
    );
  if (length === null || titleMax === null) return cell;
  return (
    <>
      {cell}
      <span
        className={`figures block px-1 text-[11px] ${length > titleMax ? 'text-warning' : 'quiet'}`}
        title="The longest title that every account looked at takes whole"
      >
        {length}/{titleMax} everywhere
      </span>
    </>
  );
}

/** The id of a row's own input: where a mend leads. */
export const masterId = (rowId: string): string => `master-${rowId.replace(/\W+/g, '-')}`;
