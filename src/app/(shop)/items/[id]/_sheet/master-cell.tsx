'use client';

import dynamic from 'next/dynamic';
import { conditionGrades } from '@/core/item/condition';
import type { Item, ItemPatch } from '@/core/item/item';
import { amountToText, parseAmount } from '@/core/measure/money';
import type { Words } from '@/services/records/known-words';
import { Chips } from '@/ui/controls/chips';
import { CustomFieldCell } from './custom-field-cell';
import { SizeCell, WeightCell } from './parcel-cell';
import type { SheetRow } from './rows';
import { StockCell } from './stock-cell';
import { StockNumberCell } from './stock-number-cell';
import { fine, Lines, LongText, Typed } from './typed';

const RichEditor = dynamic(() => import('./rich-editor'), {
  loading: () => <p className="quiet p-2">Loading the editor …</p>,
});

type Props = {
  row: SheetRow;
  item: Item;
  words: Words | undefined;
  change: (patch: ItemPatch) => void;
  flush: () => void;
  settle: () => Promise<unknown>;
  stockMoved: () => void;
  openVariations: () => void;
};

/** The item's own value, always open for writing. */
export function MasterCell({ row, item, words, change, flush, settle, stockMoved, openVariations }: Props) {
  const { master, label } = row;
  const id = masterId(row.id);
  switch (master.kind) {
    case 'none':
      return <span className="quiet">only there</span>;
    case 'text': {
      const { field } = master;
      if (field === 'sku')
        return (
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
      return (
        <Typed
          id={id}
          label={label}
          dir="auto"
          mono={master.mono}
          lines={field === 'title' ? 2 : 1}
          words={field in (words ?? {}) ? words?.[field as keyof Words] : undefined}
          value={String(item[field] ?? '')}
          parse={fine}
          change={(text) => change({ [field]: text })}
          flush={flush}
        />
      );
    }
    case 'long':
      return (
        <LongText
          id={id}
          label={label}
          value={String(item[master.field] ?? '')}
          change={(text) => change({ [master.field]: text })}
          flush={flush}
        />
      );
    case 'rich':
      return (
        <RichEditor
          key={item.id}
          label={label}
          value={item.description}
          change={(description) => change({ description })}
        />
      );
    case 'chips':
      return (
        <Chips
          id={id}
          label={label}
          values={item.keywords}
          change={(keywords) => {
            change({ keywords });
            flush();
          }}
        />
      );
    case 'lines':
      return (
        <Lines
          id={id}
          label={label}
          values={item.highlights}
          change={(highlights) => change({ highlights })}
          flush={flush}
        />
      );
    case 'money':
      return (
        <Typed
          id={id}
          label={`${label} in ${item.currency}`}
          value={item[master.field] === null ? '' : amountToText(item[master.field] ?? 0, item.currency)}
          parse={(text) =>
            text.trim() === '' || (parseAmount(text, item.currency) ?? -1) >= 0 ? null : 'This is not an amount'
          }
          change={(text) => change({ [master.field]: text.trim() === '' ? null : parseAmount(text, item.currency) })}
          flush={flush}
        />
      );
    case 'weight':
      return <WeightCell id={id} item={item} change={change} flush={flush} />;
    case 'size':
      return <SizeCell id={id} item={item} change={change} flush={flush} />;
    case 'condition':
      return (
        <select
          id={id}
          aria-label={label}
          className="select select-sm w-full"
          value={item.condition ?? ''}
          onChange={(event) => change({ condition: (event.target.value || null) as Item['condition'] })}
          onBlur={flush}
        >
          <option value="">Choose …</option>
          {conditionGrades.map((grade) => (
            <option key={grade.id} value={grade.id}>
              {grade.label}
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
          value={item[master.field] ?? ''}
          onChange={(event) => change({ [master.field]: event.target.value || null })}
          onBlur={flush}
        />
      );
    case 'stock':
      if (item.axes.length)
        return (
          <span>
            <b className="figures font-medium" data-testid="stock">
              {item.quantity}
            </b>{' '}
            <button type="button" className="underline" onClick={openVariations}>
              in {item.variations.filter((one) => one.on).length} variations
            </button>
          </span>
        );
      return <StockCell item={item} moved={stockMoved} />;
    case 'variations':
      return (
        <button id={id} type="button" className="underline" onClick={openVariations}>
          {item.axes.length
            ? `${item.axes.map((axis) => axis.name).join(' × ')}: ${item.variations.filter((one) => one.on).length} of ${item.variations.length} on`
            : 'None; make some'}
        </button>
      );
    case 'own':
      return <CustomFieldCell id={id} field={master.field} item={item} change={change} flush={flush} />;
    case 'attribute':
      return (
        <Typed
          id={id}
          label={label}
          dir="auto"
          words={row.words}
          value={item.attributes[master.name] ?? ''}
          parse={fine}
          change={(text) => {
            const { [master.name]: _old, ...rest } = item.attributes;
            change({ attributes: text === '' ? rest : { ...rest, [master.name]: text } });
          }}
          flush={flush}
        />
      );
  }
}

/** The id of a row's own input: where a mend leads. */
export const masterId = (rowId: string): string => `master-${rowId.replace(/\W+/g, '-')}`;
