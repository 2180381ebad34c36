'use client';

import { ChevronDown, ChevronRight } from 'lucide-react';
import { useCallback, useRef } from 'react';
import type { Item, ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';
import type { Words } from '@/services/records/items/known-words';
import { api } from '@/ui/data/api';
import { sentenceOf } from '@/ui/data/sentence';
import { useNotice } from '@/ui/frame/providers';
import { importCellEditor, MarketCell } from './cells/market-cell';
import { MasterCell } from './cells/master-cell';
import { NewAttribute } from './cells/new-attribute';
import { importEditor } from './cells/rich-text-box';
import { ColumnHead } from './columns/column-head';
import { NetFoot } from './columns/net-foot';
import type { SheetRow } from './rows';
import { readTyped, written } from './shown';
import type { SaveState } from './use-autosave';
import { useSheetKeys } from './use-sheet-keys';

/** What cells are written with is fetched when the hand comes near. */
const fetchEditors = () => void Promise.all([importEditor(), importCellEditor()]);

type Props = {
  item: Item;
  rows: SheetRow[];
  columns: SheetColumn[];
  /** Marketplaces that have rows for themselves, and how many; which of them are open. */
  ownRows: ReadonlyMap<string, number>;
  openMarkets: readonly string[];
  fold: (market: string) => void;
  words: Words | undefined;
  save: {
    state: SaveState;
    change: (patch: ItemPatch) => void;
    flush: () => Promise<void>;
    settle: () => Promise<number>;
  };
  /** Nothing of it is stored yet. */
  isNew: boolean;
  again: () => Promise<unknown>;
  mapCategory: (column: SheetColumn, categoryId: string) => Promise<void>;
  narrowedTo: number | null;
  narrow: (accountId: number) => void;
  hide: (accountId: number) => void;
  compare: (rowId: string) => void;
  look: (accountId: number, tab: 'preview' | 'price') => void;
  leaveOut: (column: SheetColumn) => void;
  end: (column: SheetColumn) => void;
  takeModel: (column: SheetColumn, from: number) => void;
  openVariations: () => void;
};

const noField: SheetField | undefined = undefined;

/** Fields × marketplaces. The item's own column stays in view; the marketplaces scroll beside it. */
export function SheetGrid(props: Props) {
  const { item, rows, columns, words, save, again, mapCategory, narrowedTo } = props;
  const notice = useNotice();
  const undoList = useRef<{ accountId: number; field: string; value: Json | undefined }[]>([]);
  const { settle } = save;
  const flush = useCallback(() => void save.flush(), [save.flush]);
  // The longest title that every account looked at takes whole.
  const limits = columns.flatMap((column) => column.fields.find((field) => field.field === 'title')?.max ?? []);
  const titleMax = limits.length ? Math.min(...limits) : null;
  const moved = useCallback(() => void again(), [again]);

  const send = useCallback(
    async (accountId: number, field: string, value: Json | undefined) => {
      const id = await settle();
      await api('PUT /items/{id}/listings/{account}', {
        params: { id, account: accountId },
        body: value === undefined ? { field } : { field, value },
      });
      await again();
    },
    [again, settle],
  );
  const write = useCallback(
    async (column: SheetColumn, field: SheetField, value: Json | undefined) => {
      undoList.current.push({
        accountId: column.accountId,
        field: field.field,
        value: field.origin === 'override' ? field.value : undefined,
      });
      await send(column.accountId, field.field, value);
    },
    [send],
  );
  const tell = (error: unknown) => notice(sentenceOf(error));
  const cell = (row: number, column: number) => {
    const there = columns[column - 1];
    const field = there ? rows[row]?.fieldOf(there) : noField;
    return there && field?.editable ? { there, field } : null;
  };
  const onKeyDown = useSheetKeys({
    rows: rows.length,
    columns: columns.length,
    copy: (row, column) => {
      const found = cell(row, column);
      return found && written(found.field, found.there);
    },
    paste: (row, column, text) => {
      const found = cell(row, column);
      if (!found) return;
      const read = readTyped(found.field, found.there, text.replace(/\t.*$/s, ''));
      if ('problem' in read) notice(`${found.field.label} on ${found.there.name}: ${read.problem}`);
      else void write(found.there, found.field, read.value).catch(tell);
    },
    clear: (row, column) => {
      const found = cell(row, column);
      if (found?.field.origin === 'override') void write(found.there, found.field, undefined).catch(tell);
    },
    undo: () => {
      const last = undoList.current.pop();
      if (!last) return notice('Nothing to take back in the marketplaces’ columns');
      void send(last.accountId, last.field, last.value).then(() => notice('Taken back'), tell);
    },
  });

  return (
    <section
      className="relative min-h-0 flex-1 overflow-auto"
      aria-label="Fields and marketplaces"
      tabIndex={0}
      onKeyDown={onKeyDown}
    >
      <table
        className="w-full table-fixed text-[13px] border-separate border-spacing-0"
        onFocus={fetchEditors}
        onPointerEnter={fetchEditors}
      >
        <colgroup>
          <col style={{ width: 112 }} />
          <col style={{ width: 318 }} />
          {columns.map((column) => (
            <col key={column.accountId} style={{ width: 196 }} />
          ))}
        </colgroup>
        <thead className="sticky top-0 z-20 bg-base-200">
          <tr>
            <th
              scope="col"
              className="sticky left-0 z-20 border-b border-base-300 bg-base-200 px-3 py-1.5 text-left align-top font-medium"
            >
              Field
            </th>
            <th
              scope="col"
              className="sticky left-[112px] z-20 border-r border-b border-base-300 bg-base-200 px-2 py-1.5 text-left align-top font-medium"
            >
              Item
            </th>
            {columns.map((column) => (
              <ColumnHead
                key={column.accountId}
                column={column}
                others={columns.filter((one) => one !== column)}
                narrowed={narrowedTo === column.accountId}
                narrow={() => props.narrow(column.accountId)}
                hide={() => props.hide(column.accountId)}
                look={() => props.look(column.accountId, 'preview')}
                leaveOut={() => props.leaveOut(column)}
                end={() => props.end(column)}
                takeModel={(from) => props.takeModel(column, from)}
              />
            ))}
          </tr>
        </thead>
        <tbody>
          {withHeads(rows, props.ownRows).map((one) => {
            if ('head' in one) return <OwnHead key={`own-${one.head}`} market={one.head} {...props} />;
            const { row, index } = one;
            return (
              <tr key={row.id} id={`row-${row.id}`}>
                <th
                  scope="row"
                  className="sticky left-0 z-[5] border-b border-base-300/60 bg-base-100 px-3 py-1.5 text-left align-top font-medium wrap-anywhere"
                >
                  <button
                    type="button"
                    tabIndex={-1}
                    className="text-left hover:underline"
                    title="Spread this row out over all marketplaces"
                    onClick={() => props.compare(row.id)}
                  >
                    {row.label}
                  </button>
                </th>
                <td
                  data-cell={`${index}/0`}
                  className="sticky left-[112px] z-[5] border-r border-b border-base-300/60 bg-base-100 px-2 py-1 align-top"
                >
                  <MasterCell
                    row={row}
                    item={item}
                    words={words}
                    change={save.change}
                    flush={flush}
                    settle={settle}
                    stockMoved={moved}
                    openVariations={props.openVariations}
                    isNew={props.isNew}
                    titleMax={titleMax}
                  />
                  {save.state.kind === 'refused' && save.state.field === row.id ? (
                    <p role="alert" className="text-error">
                      {save.state.message}
                    </p>
                  ) : null}
                </td>
                {columns.map((column, at) => (
                  <td
                    key={column.accountId}
                    data-cell={`${index}/${at + 1}`}
                    className="border-b border-l border-base-300/60 px-1 py-1 align-top"
                  >
                    <MarketCell
                      item={item}
                      column={column}
                      field={row.fieldOf(column)}
                      write={write}
                      mapCategory={mapCategory}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
          <tr>
            <th
              scope="row"
              className="sticky left-0 z-[5] border-b border-base-300/60 bg-base-100 px-3 py-1.5 text-left align-top font-normal"
            >
              <span className="quiet">Besides</span>
            </th>
            <td className="sticky left-[112px] z-[5] border-r border-b border-base-300/60 bg-base-100 px-2 py-1">
              <NewAttribute
                taken={Object.keys(item.attributes)}
                add={(name, value) => {
                  save.change({ attributes: { ...item.attributes, [name]: value } });
                  flush();
                }}
              />
            </td>
            <td colSpan={Math.max(1, columns.length)} className="border-b border-base-300/60" />
          </tr>
        </tbody>
        {columns.length > 0 ? (
          <tfoot className="sticky bottom-0 z-20 bg-base-200">
            <tr>
              <th
                scope="row"
                className="sticky left-0 z-20 border-t border-base-300 bg-base-200 px-3 py-1.5 text-left font-medium"
              >
                What is left
              </th>
              <td className="sticky left-[112px] z-20 border-t border-r border-base-300 bg-base-200 px-2 py-1.5">
                <span className="quiet">Price − fees − postage − packing − cost</span>
              </td>
              {columns.map((column) => (
                <td key={column.accountId} className="border-t border-l border-base-300 px-2 py-1.5">
                  <NetFoot column={column} open={() => props.look(column.accountId, 'price')} />
                </td>
              ))}
            </tr>
          </tfoot>
        ) : null}
      </table>
    </section>
  );
}

type Line = { row: SheetRow; index: number } | { head: string };

/** Rows with a head before those that one marketplace has for itself, also where all of them are folded. */
function withHeads(rows: readonly SheetRow[], ownRows: ReadonlyMap<string, number>): Line[] {
  const lines: Line[] = [];
  const told = new Set<string>();
  rows.forEach((row, index) => {
    if (row.market && ownRows.has(row.market) && !told.has(row.market)) {
      told.add(row.market);
      lines.push({ head: row.market });
    }
    lines.push({ row, index });
  });
  for (const market of [...ownRows.keys()].sort()) if (!told.has(market)) lines.push({ head: market });
  return lines;
}

/** The name of a marketplace over its own rows: a click opens or folds them. */
function OwnHead({
  market,
  ownRows,
  openMarkets,
  columns,
  fold,
}: { market: string } & Pick<Props, 'ownRows' | 'openMarkets' | 'columns' | 'fold'>) {
  const isOpen = openMarkets.includes(market);
  const count = ownRows.get(market) ?? 0;
  return (
    <tr>
      <th
        scope="rowgroup"
        colSpan={2}
        className="sticky left-0 z-[5] border-r border-b border-base-300/60 bg-base-100 px-3 py-1 text-left font-normal"
      >
        <button
          type="button"
          tabIndex={-1}
          aria-expanded={isOpen}
          className="flex items-center gap-1 hover:underline"
          onClick={() => fold(market)}
        >
          {isOpen ? <ChevronDown size={13} aria-hidden="true" /> : <ChevronRight size={13} aria-hidden="true" />}
          Only on {market}
          <span className="quiet">
            {count} {count === 1 ? 'field' : 'fields'}
          </span>
        </button>
      </th>
      <td colSpan={columns.length} className="border-b border-base-300/60" />
    </tr>
  );
}
