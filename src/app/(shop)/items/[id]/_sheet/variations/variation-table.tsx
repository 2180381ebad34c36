'use client';

import { useEffect, useRef, useState } from 'react';
import {
  type Block,
  cellText,
  copyBlock,
  fillDown,
  pasteBlock,
  variationColumns,
  writeCell,
} from '@/core/item/variation-table';
import { type Axis, type Variation, variationPrice } from '@/core/item/variations';
import { formatMoney } from '@/core/measure/money';
import { useNotice } from '@/ui/frame/providers';
import { useBlock } from './use-block';

const labels = { on: 'Offered', sku: 'Stock number', quantity: 'Stock', price: 'Price', barcode: 'Barcode' } as const;
const widths = { on: 84, sku: 170, quantity: 84, price: 110, barcode: 150 } as const;

type Props = {
  axes: Axis[];
  rows: Variation[];
  itemPrice: number | null;
  currency: string;
  change: (rows: Variation[]) => void;
  undo: () => void;
};

/**
 * The combinations as a table with a spreadsheet's habits: arrows and Shift choose, typing or Enter writes, Ctrl+C,
 * Ctrl+V and Ctrl+D copy, paste and fill down, Delete empties, Ctrl+Z takes back. A column's head chooses all of it.
 */
export function VariationTable({ axes, rows, itemPrice, currency, change, undo }: Props) {
  const notice = useNotice();
  const { head, block, to, choose } = useBlock(rows.length, variationColumns.length);
  const [editing, setEditing] = useState<string | null>(null);
  const [problem, setProblem] = useState('');
  const grid = useRef<HTMLDivElement>(null);

  useEffect(() => {
    grid.current?.querySelector(`[data-at="${head.row}/${head.column}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [head]);

  const paste = (text: string, into: Block = block) => {
    const { rows: next, faults, written } = pasteBlock(rows, into, text, currency);
    change(next);
    const [first] = faults;
    setProblem(first ? `Row ${first.row + 1}, ${labels[first.column]}: ${first.message}` : '');
    if (written > 1) notice(`${written} cells written${faults.length ? `, ${faults.length} could not be read` : ''}`);
  };
  const commit = (text: string, down: number, across: number) => {
    const row = rows[head.row];
    const column = variationColumns[head.column];
    if (!row || !column) return;
    if (block.top !== block.bottom || block.left !== block.right) {
      // Typed into a chosen block it fills all of it, and the block stays chosen.
      paste(text);
      setEditing(null);
      grid.current?.focus();
      return;
    }
    const outcome = writeCell(row, column, text, currency);
    if ('problem' in outcome) return setProblem(`Row ${head.row + 1}, ${labels[column]}: ${outcome.problem}`);
    setProblem('');
    change(rows.map((one, at) => (at === head.row ? outcome.row : one)));
    setEditing(null);
    to({ row: head.row + down, column: head.column + across }, false);
    grid.current?.focus();
  };
  const toggle = () => {
    const on = !rows[head.row]?.on;
    change(rows.map((row, at) => (at >= block.top && at <= block.bottom ? { ...row, on } : row)));
  };

  const onKeyDown = (event: React.KeyboardEvent) => {
    if (editing !== null) return;
    const control = event.ctrlKey || event.metaKey;
    const arrows: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [12, 0],
      PageUp: [-12, 0],
    };
    const step = arrows[event.key];
    if (step) {
      event.preventDefault();
      const far = control ? 10_000 : 1;
      to({ row: head.row + step[0] * far, column: head.column + step[1] * far }, event.shiftKey);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      const row = rows[head.row];
      const column = variationColumns[head.column];
      if (column === 'on') toggle();
      else if (row && column) setEditing(cellText(row, column, currency));
    } else if (event.key === ' ') {
      event.preventDefault();
      toggle();
    } else if (control && event.key.toLowerCase() === 'a') {
      event.preventDefault();
      choose({ row: 0, column: 0 }, { row: rows.length - 1, column: variationColumns.length - 1 });
    } else if (control && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      change(fillDown(rows, block, currency));
    } else if (control && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      undo();
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      // Emptying switches nothing off: that is said in its own column.
      paste('', { ...block, left: Math.max(1, block.left) });
    } else if (event.key.length === 1 && !control && !event.altKey) {
      event.preventDefault();
      setEditing(event.key);
    }
  };

  return (
    <>
      {/* The grid takes the focus as a whole; its cell under the cursor is told by aria-activedescendant. */}
      <div
        ref={grid}
        role="grid"
        aria-label="Combinations"
        aria-rowcount={rows.length + 1}
        aria-multiselectable="true"
        aria-activedescendant={`cell-${head.row}-${head.column}`}
        tabIndex={0}
        className="max-h-[26rem] overflow-auto rounded border border-base-300"
        onKeyDown={onKeyDown}
        onCopy={(event) => {
          if (editing !== null) return;
          event.preventDefault();
          event.clipboardData.setData('text/plain', copyBlock(rows, block, currency));
        }}
        onPaste={(event) => {
          if (editing !== null) return;
          event.preventDefault();
          paste(event.clipboardData.getData('text/plain'));
        }}
      >
        <div role="row" className="sticky top-0 z-10 flex bg-base-200 text-[12px] font-medium">
          {axes.map((axis) => (
            <span key={axis.name} role="columnheader" className="w-28 shrink-0 truncate px-2 py-1">
              {axis.name}
            </span>
          ))}
          {variationColumns.map((column, at) => (
            <button
              key={column}
              type="button"
              role="columnheader"
              tabIndex={-1}
              style={{ width: widths[column] }}
              className={`shrink-0 px-2 py-1 ${column === 'quantity' || column === 'price' ? 'text-right' : 'text-left'}`}
              title="Choose the whole column"
              onClick={() => {
                choose({ row: 0, column: at }, { row: rows.length - 1, column: at });
                grid.current?.focus();
              }}
            >
              {labels[column]}
            </button>
          ))}
          <span role="columnheader" className="w-24 shrink-0 px-2 py-1 text-right">
            Sells for
          </span>
        </div>
        {rows.map((row, y) => (
          <div
            key={JSON.stringify(row.values)}
            role="row"
            aria-rowindex={y + 2}
            className={`flex border-t border-base-300/50 ${row.on ? '' : 'quiet bg-base-200/60'}`}
          >
            {row.values.map((value, index) => (
              <span key={axes[index]?.name ?? index} role="rowheader" className="w-28 shrink-0 truncate px-2 py-1">
                {value}
              </span>
            ))}
            {variationColumns.map((column, x) => {
              const chosen = y >= block.top && y <= block.bottom && x >= block.left && x <= block.right;
              const here = y === head.row && x === head.column;
              return (
                <div
                  key={column}
                  id={`cell-${y}-${x}`}
                  data-at={`${y}/${x}`}
                  role="gridcell"
                  aria-selected={chosen}
                  style={{ width: widths[column] }}
                  className={`figures shrink-0 cursor-cell truncate px-2 py-1 ${column === 'quantity' || column === 'price' ? 'text-right' : ''} ${column === 'sku' || column === 'barcode' ? 'mono' : ''} ${chosen ? 'bg-primary/15' : ''} ${here ? 'outline-2 -outline-offset-2 outline-primary' : ''}`}
                  onMouseDown={(event) => {
                    if (here && editing !== null) return;
                    to({ row: y, column: x }, event.shiftKey);
                  }}
                  onMouseEnter={(event) => event.buttons === 1 && editing === null && to({ row: y, column: x }, true)}
                  onDoubleClick={() => (column === 'on' ? toggle() : setEditing(cellText(row, column, currency)))}
                >
                  {here && editing !== null ? (
                    <input
                      // biome-ignore lint/a11y/noAutofocus: it was opened by typing
                      autoFocus
                      aria-label={`${labels[column]} of ${row.values.join(', ')}`}
                      className="w-full bg-base-100 outline-none"
                      value={editing}
                      onChange={(event) => setEditing(event.target.value)}
                      onBlur={() => editing !== null && commit(editing, 0, 0)}
                      onKeyDown={(event) => {
                        if (event.key === 'Escape') {
                          event.stopPropagation();
                          setEditing(null);
                          grid.current?.focus();
                        } else if (event.key === 'Enter') {
                          event.preventDefault();
                          commit(editing, event.shiftKey ? -1 : 1, 0);
                        } else if (event.key === 'Tab') {
                          event.preventDefault();
                          commit(editing, 0, event.shiftKey ? -1 : 1);
                        }
                      }}
                    />
                  ) : (
                    cellText(row, column, currency) || ' '
                  )}
                </div>
              );
            })}
            <span role="gridcell" className="quiet figures w-24 shrink-0 px-2 py-1 text-right">
              {variationPrice(itemPrice, row) === null
                ? '–'
                : formatMoney(variationPrice(itemPrice, row) ?? 0, currency)}
            </span>
          </div>
        ))}
      </div>
      {problem ? (
        <p role="alert" className="text-error">
          {problem}
        </p>
      ) : null}
    </>
  );
}
