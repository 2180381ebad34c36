'use client';

import { Columns3 } from 'lucide-react';
import type { SheetColumn } from '@/services/items/item-sheet';
import { Knot } from '@/ui/controls/knot';

type Props = {
  columns: SheetColumn[];
  hidden: number[];
  setHidden: (hidden: number[]) => void;
  place: (column: SheetColumn, here: boolean) => void;
};

/** Which marketplaces are shown; and which the item is for. */
export function ColumnMenu({ columns, hidden, setHidden, place }: Props) {
  const shown = columns.filter((column) => !column.leftOut && !hidden.includes(column.accountId)).length;
  return (
    <details className="relative">
      <summary className="btn btn-sm list-none">
        <Columns3 size={14} aria-hidden="true" /> {shown} of {columns.length} accounts
      </summary>
      <div className="absolute right-0 z-30 mt-1 w-80 rounded border border-base-300 bg-base-100 p-2 shadow-xl">
        <div className="mb-1 flex gap-2 px-1">
          <button type="button" className="btn btn-xs" onClick={() => setHidden([])}>
            Show all
          </button>
          <button
            type="button"
            className="btn btn-xs"
            onClick={() =>
              setHidden(columns.filter((column) => column.blocking === 0).map((column) => column.accountId))
            }
          >
            Only those with something missing
          </button>
        </div>
        <ul>
          {columns.map((column) => (
            <li key={column.accountId} className="flex items-center gap-2 rounded px-1 py-0.5 hover:bg-base-200">
              <label className="flex min-w-0 flex-1 cursor-pointer items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  disabled={column.leftOut}
                  checked={!column.leftOut && !hidden.includes(column.accountId)}
                  onChange={(event) =>
                    setHidden(
                      event.target.checked
                        ? hidden.filter((id) => id !== column.accountId)
                        : [...hidden, column.accountId],
                    )
                  }
                />
                <Knot state={column.state} where={column.name} />
                <span className="truncate">{column.name}</span>
                {column.blocking && !column.leftOut ? (
                  <span className="figures text-[12px] text-warning">{column.blocking}</span>
                ) : null}
              </label>
              <button type="button" className="btn btn-ghost btn-xs" onClick={() => place(column, column.leftOut)}>
                {column.leftOut ? 'Add here' : 'Leave out'}
              </button>
            </li>
          ))}
        </ul>
      </div>
    </details>
  );
}
