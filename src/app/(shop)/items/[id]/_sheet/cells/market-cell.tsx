'use client';

import { CornerUpLeft, TriangleAlert } from 'lucide-react';
import dynamic from 'next/dynamic';
import { memo, useRef, useState } from 'react';
import type { Item } from '@/core/item/item';
import type { Json } from '@/core/json';
import { originLabels } from '@/core/listing/fields';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';
import { sentenceOf } from '@/ui/data/sentence';
import { useNotice } from '@/ui/frame/providers';
import { shown } from '../shown';

// Fetched before the hand comes to a cell.
export const importCellEditor = () => import('./cell-editor').then((module) => module.CellEditor);
const CellEditor = dynamic(importCellEditor);

const marks = { master: '', fitted: '≈', override: '●', template: '▤', account: '◐', rule: '◇', unused: '' } as const;

type Props = {
  item: Item;
  column: SheetColumn;
  field: SheetField | undefined;
  write: (column: SheetColumn, field: SheetField, value: Json | undefined) => Promise<void>;
  mapCategory: (column: SheetColumn, categoryId: string) => Promise<void>;
};

/** What this marketplace will get, where it comes from, and what is wrong with it; Enter opens it for writing. */
function MarketCellBody({ item, column, field, write, mapCategory }: Props) {
  const [anchor, setAnchor] = useState<DOMRect | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const notice = useNotice();
  if (!field || (field.origin === 'unused' && field.issues.length === 0))
    return (
      <button type="button" tabIndex={-1} className="quiet min-h-5 w-full cursor-default px-1 text-left text-[12px]">
        {field?.field === 'conditionNote' ? (
          'told in the description'
        ) : (
          <span className="sr-only">{column.name} does not use it</span>
        )}
      </button>
    );
  const issue = field.issues[0];
  const { editable } = field;
  const text = shown(field, column);
  const close = () => {
    setAnchor(null);
    // Whoever has gone on to another place stays there.
    const here = document.activeElement;
    if (here === null || here === document.body || here.closest('[role=dialog]')) button.current?.focus();
  };
  const facts = [
    field.length !== undefined && field.max !== undefined ? `${field.length}/${field.max}` : '',
    field.origin === 'master' || field.origin === 'unused'
      ? ''
      : `${marks[field.origin]} ${originLabels[field.origin]}`,
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <div className="group relative">
      <button
        ref={button}
        type="button"
        tabIndex={-1}
        dir="auto"
        aria-disabled={!editable}
        onClick={(event) => editable && setAnchor(event.currentTarget.getBoundingClientRect())}
        aria-label={`${field.label} on ${column.name}: ${text || 'nothing'}`}
        aria-haspopup={editable ? 'dialog' : undefined}
        data-editable={editable}
        className={`line-clamp-3 w-full rounded px-1 py-0.5 text-left wrap-anywhere ${editable ? 'hover:bg-base-200' : 'cursor-default'}`}
      >
        {text || <span className="quiet">–</span>}
      </button>
      {anchor ? (
        <CellEditor
          item={item}
          column={column}
          field={field}
          anchor={anchor}
          write={(value) => write(column, field, value)}
          close={close}
        />
      ) : null}
      <div className="flex flex-wrap items-center gap-x-2 px-1 text-[11px]">
        {facts ? (
          <span
            className={`figures ${field.max !== undefined && (field.length ?? 0) > field.max ? 'text-error' : 'quiet'}`}
            title={[field.how, field.lost ? `Left out: ${field.lost.join(', ')}` : ''].filter(Boolean).join('. ')}
          >
            {facts}
            {field.lost
              ? ` · without ${field.lost.length > 2 ? `${field.lost.length} words` : field.lost.join(', ')}`
              : ''}
          </span>
        ) : null}
        {field.origin === 'override' ? (
          <button
            type="button"
            tabIndex={-1}
            className="flex shrink-0 items-center gap-0.5 whitespace-nowrap underline"
            onClick={() => void write(column, field, undefined).catch((error: unknown) => notice(sentenceOf(error)))}
            aria-label={`${field.label} on ${column.name}: back to the item’s value`}
          >
            <CornerUpLeft size={11} aria-hidden="true" /> follow the item
          </button>
        ) : null}
      </div>
      {issue ? (
        <p
          data-mend={issue.blocks ? (issue.fix.kind === 'edit-master' ? 'item' : 'here') : undefined}
          className="flex items-start gap-1 px-1 text-[12px] text-warning"
        >
          <TriangleAlert size={12} className="mt-0.5 shrink-0" aria-hidden="true" />
          <span>{issue.message}</span>
        </p>
      ) : null}
      {issue?.fix.kind === 'map-category' && item.category ? (
        <div className="mt-1 flex flex-wrap gap-1 px-1">
          {column.suggestions.map((one) => (
            <button
              key={one.id}
              type="button"
              tabIndex={-1}
              className="btn btn-xs"
              title={one.why}
              onClick={() => void mapCategory(column, one.id)}
            >
              {one.path.at(-1)}
            </button>
          ))}
        </div>
      ) : null}
    </div>
  );
}

/** Drawn anew only when its own field changed: typing in the first column must not redraw every marketplace. */
export const MarketCell = memo(
  MarketCellBody,
  (before, after) =>
    before.column === after.column &&
    before.field === after.field &&
    before.write === after.write &&
    before.mapCategory === after.mapCategory &&
    before.item.photos === after.item.photos &&
    before.item.category === after.item.category &&
    before.item.variations === after.item.variations,
);
