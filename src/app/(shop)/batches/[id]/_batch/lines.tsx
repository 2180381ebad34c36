'use client';

import { memo, useMemo, useState } from 'react';
import { conditionLabel } from '@/core/item/condition';
import type { LineView } from '@/services/intake/line-view';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { toneOf } from './tone-of';

type Props = {
  lines: LineView[];
  undo: (line: LineView) => void;
  /** A line of which nothing was made is read as this. */
  readAs: (line: LineView, text: string) => void;
};

const idOf = (line: LineView) => line.id;
const lookOf = (line: LineView) => (line.isUndone ? 'quiet line-through' : '');

/** What was scanned, the newest first; what is no code is mended in its place. */
export const Lines = memo(function Lines({ lines, undo, readAs }: Props) {
  const columns = useMemo(
    (): Column<LineView>[] => [
      {
        id: 'state',
        head: 'What came of it',
        className: 'w-40',
        cell: (line) => {
          const tone = toneOf(line);
          return (
            <span className={`flex items-center gap-2 whitespace-nowrap ${tone.ink}`}>
              <span aria-hidden="true" className={`h-4 border-l-4 ${tone.edge}`} />
              {tone.words}
            </span>
          );
        },
      },
      {
        id: 'item',
        head: 'Piece',
        className: 'max-lg:w-60',
        names: true,
        cell: (line) =>
          line.item ? (
            <ItemCell
              photo={line.item.photo}
              title={line.item.title || line.code || line.scanned}
              sku={line.item.sku}
              href={`/items/${line.item.id}`}
            />
          ) : (
            <Mend line={line} readAs={readAs} />
          ),
      },
      {
        id: 'sku',
        head: 'Stock no.',
        className: 'w-28',
        cellClass: 'mono truncate',
        cell: (line) => line.item?.sku ?? '',
      },
      {
        id: 'condition',
        head: 'Condition',
        className: 'w-24',
        cellClass: 'truncate',
        cell: (line) => (line.item ? conditionLabel(line.item.condition) || '–' : ''),
      },
      {
        id: 'place',
        head: 'Place',
        className: 'w-20',
        cellClass: 'mono truncate',
        cell: (line) => line.item?.location ?? '',
      },
      { id: 'units', head: 'Units', align: 'right', className: 'w-14', cell: (line) => line.units },
      {
        id: 'price',
        head: 'Price',
        align: 'right',
        className: 'w-20',
        cell: (line) => (line.item ? <Price amount={line.item.price} /> : ''),
      },
      {
        id: 'net',
        head: 'Best net',
        className: 'w-20',
        align: 'right',
        cell: (line) => (line.best ? <Price amount={line.best.net} tone /> : ''),
      },
      {
        id: 'undo',
        head: 'Take back',
        isHeard: true,
        className: 'w-28',
        cell: (line) =>
          line.isUndone ? null : (
            <button type="button" className="btn btn-ghost btn-xs whitespace-nowrap" onClick={() => undo(line)}>
              {line.kind === 'none' ? 'Throw away' : 'Take back'}
            </button>
          ),
      },
    ],
    [undo, readAs],
  );
  return <DataTable rows={lines} columns={columns} idOf={idOf} sticky fixed rowClass={lookOf} />;
});

/** What was scanned, to be written as it was meant. */
function Mend({ line, readAs }: { line: LineView; readAs: Props['readAs'] }) {
  const [text, setText] = useState(line.scanned);
  if (line.isUndone) return <span className="mono">{line.scanned}</span>;
  return (
    <form
      className="flex min-w-0 items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim()) readAs(line, text);
      }}
    >
      <input
        aria-label={`${line.scanned} is meant as`}
        className="input input-xs mono w-36 shrink-0"
        maxLength={200}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="btn btn-xs shrink-0" disabled={text.trim() === '' || text === line.scanned}>
        Read as this
      </button>
      {line.near.map((code) => (
        <button key={code} type="button" className="btn btn-xs mono shrink-0" onClick={() => readAs(line, code)}>
          {code}?
        </button>
      ))}
      <span className="quiet truncate text-[12px]">{line.said}</span>
    </form>
  );
}
