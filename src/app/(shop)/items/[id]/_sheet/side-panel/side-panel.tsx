'use client';

import { X } from 'lucide-react';
import type { Item, ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import type { SheetColumn } from '@/services/items/item-sheet';
import { LookUps } from '@/ui/controls/look-ups';
import type { SheetRow } from '../rows';
import { Compare } from './compare';
import { Parts } from './parts';
import { BesidePreview } from './preview';
import { BesidePrice } from './price';
import { Wording } from './wording';

export const besideTabs = [
  { id: 'preview', label: 'Preview' },
  { id: 'price', label: 'Price' },
  { id: 'wording', label: 'Wording' },
  { id: 'row', label: 'One row' },
  { id: 'parts', label: 'Parts' },
] as const;
export type BesideTab = (typeof besideTabs)[number]['id'];

type Props = {
  item: Item;
  columns: SheetColumn[];
  row: SheetRow | undefined;
  tab: BesideTab;
  accountId: number | null;
  show: (tab: BesideTab | null, accountId?: number | null) => void;
  change: (patch: ItemPatch) => void;
  write: (accountId: number, field: string, value: Json) => Promise<void>;
};

/** What is looked at beside the sheet while one writes. */
export function SidePanel({ item, columns, row, tab, accountId, show, change, write }: Props) {
  const column = columns.find((one) => one.accountId === accountId) ?? null;
  return (
    <aside aria-label="Beside the sheet" className="flex w-[22rem] shrink-0 flex-col border-l border-base-300">
      <div className="flex items-center gap-1 border-b border-base-300 px-2 py-1">
        <div role="tablist" aria-label="Beside the sheet" className="flex gap-1">
          {besideTabs.map((one) => (
            <button
              key={one.id}
              type="button"
              role="tab"
              aria-selected={one.id === tab}
              className={`rounded px-2 py-1 ${one.id === tab ? 'bg-base-300 font-medium' : 'hover:bg-base-200'}`}
              onClick={() => show(one.id, accountId)}
            >
              {one.label}
            </button>
          ))}
        </div>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square ml-auto"
          aria-label="Close what stands beside the sheet"
          onClick={() => show(null)}
        >
          <X size={14} aria-hidden="true" />
        </button>
      </div>
      <div className="px-3 py-1 empty:hidden">
        <LookUps facts={item} />
      </div>
      {tab === 'preview' || tab === 'wording' ? (
        <select
          aria-label="Marketplace looked at"
          className="select select-sm m-2 w-auto"
          value={accountId ?? ''}
          onChange={(event) => show(tab, event.target.value ? Number(event.target.value) : null)}
        >
          {tab === 'wording' ? <option value="">The item itself</option> : null}
          {columns.map((one) => (
            <option key={one.accountId} value={one.accountId}>
              {one.name}
            </option>
          ))}
        </select>
      ) : null}
      {/* A box that scrolls is reached by keyboard */}
      <div role="tabpanel" aria-label={tab} className="min-h-0 flex-1 overflow-auto" tabIndex={0}>
        {tab === 'preview' ? (
          <BesidePreview itemId={item.id} version={item.version} accountId={accountId ?? columns[0]?.accountId ?? 0} />
        ) : tab === 'price' ? (
          <BesidePrice item={item} change={change} write={write} />
        ) : tab === 'wording' ? (
          <Wording item={item} column={column} change={change} write={write} />
        ) : tab === 'parts' ? (
          <Parts itemId={item.id} />
        ) : (
          <Compare row={row} columns={columns} />
        )}
      </div>
    </aside>
  );
}
