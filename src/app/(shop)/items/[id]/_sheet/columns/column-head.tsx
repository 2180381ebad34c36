'use client';

import type { SheetColumn } from '@/services/items/item-sheet';
import { Knot } from '@/ui/controls/knot';

/** States in which a buyer can find it there. */
const isThere = new Set(['live', 'changed', 'conflict']);

type Props = {
  column: SheetColumn;
  others: SheetColumn[];
  narrowed: boolean;
  narrow: () => void;
  hide: () => void;
  look: () => void;
  leaveOut: () => void;
  end: () => void;
  takeModel: (from: number) => void;
};

/** A marketplace's column: its knot, what is missing, and what can be done with the whole of it. */
export function ColumnHead({ column, others, narrowed, narrow, hide, look, leaveOut, end, takeModel }: Props) {
  return (
    <th scope="col" className="border-b border-l border-base-300 px-2 py-1.5 text-left align-top font-medium">
      <span className="flex items-center gap-1.5">
        <Knot state={column.state} where={column.name} />
        {column.url ? (
          <a href={column.url} target="_blank" rel="noreferrer" className="truncate underline">
            {column.name}
          </a>
        ) : (
          <span className="truncate">{column.name}</span>
        )}
        <select
          aria-label={`What to do with ${column.name}`}
          className="ml-auto w-6 cursor-pointer bg-transparent text-center"
          value=""
          onChange={(event) => {
            const choice = event.target.value;
            if (choice === 'look') look();
            else if (choice === 'hide') hide();
            else if (choice === 'out') leaveOut();
            else if (choice === 'end') end();
            else if (choice) takeModel(Number(choice));
          }}
        >
          <option value="">⋯</option>
          <option value="look">Look at it as a buyer</option>
          <option value="hide">Hide this column</option>
          {isThere.has(column.state) ? (
            <option value="end">End this listing</option>
          ) : (
            <option value="out">Leave the item out here</option>
          )}
          <optgroup label="Take as the model">
            {others.map((one) => (
              <option key={one.accountId} value={one.accountId}>
                {one.name}
              </option>
            ))}
          </optgroup>
        </select>
      </span>
      {column.blocking ? (
        <button
          type="button"
          aria-pressed={narrowed}
          className="text-[12px] font-normal text-warning underline decoration-dotted aria-pressed:font-semibold"
          title="Show only the rows in which something is missing here"
          onClick={narrow}
        >
          {column.blocking} missing
        </button>
      ) : (
        <span className="quiet block text-[12px] font-normal">ready</span>
      )}
      {column.lastError ? (
        <span className="block truncate text-[12px] font-normal text-warning" title={column.lastError.message}>
          {column.lastError.message}
        </span>
      ) : null}
    </th>
  );
}
