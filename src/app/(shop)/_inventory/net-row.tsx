import { type MouseEvent, memo } from 'react';
import type { FoundItem } from '@/services/records/items/find-items';
import { CellEditor } from './cell-editor';
import type { Column } from './columns';
import { NetCell } from './net-cell';

/** What the hand does in a row; the same object for as long as the net is there. */
export type RowHands = {
  press: (row: number, column: number, event: MouseEvent) => void;
  open: (id: number) => void;
  edit: () => void;
  toggle: (id: number, isChosen: boolean) => void;
  write: (text: string) => Promise<string | null>;
  done: (saved: boolean) => void;
};

type Props = {
  item: FoundItem;
  columns: Column[];
  template: string;
  index: number;
  height: number;
  /** Pixels from the top of the rows. */
  top: number;
  isChosen: boolean;
  /** The column under the cursor; −1 where the cursor is in another row. */
  cursor: number;
  /** The columns of the range, where it takes this row in; from −1 to −2 where it does not. */
  rangeFrom: number;
  rangeTo: number;
  /** Set while the cell under the cursor is written. */
  editing: false | { begun?: string };
  /** False while it is only flown over: then it says which item it is, and no more. */
  isWhole: boolean;
  hands: RowHands;
};

/** What says which item a row is. */
const naming = ['title', 'sku'];

/** One row of the net. It is drawn anew only when something of it is another: scrolling draws the rows that come. */
export const NetRow = memo(function NetRow(props: Props) {
  const { item, columns, template, index, height, top, isChosen, cursor, rangeFrom, rangeTo, editing, isWhole, hands } =
    props;
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-selected={isChosen}
      className={`absolute grid w-full border-b border-base-300/60 ${isChosen ? 'bg-base-300/60' : 'hover:bg-base-200'}`}
      style={{ gridTemplateColumns: template, height, transform: `translateY(${top}px)` }}
    >
      {columns.map((column, at) => {
        if (!isWhole && !naming.includes(column.id)) return null;
        const isHere = cursor === at;
        const isInside = at >= rangeFrom && at <= rangeTo;
        return (
          <div
            key={column.id}
            id={`cell-${item.id}-${column.id}`}
            role="gridcell"
            aria-colindex={at + 1}
            tabIndex={-1}
            className={`flex h-full min-w-0 items-center px-2 ${column.kind === 'knot' ? 'justify-center border-l border-base-300/60' : ''} ${column.kind === 'field' && column.align ? 'justify-end' : ''} ${column.id === 'title' ? 'cursor-pointer' : ''} ${isHere ? 'outline-2 outline-offset-[-2px] outline-base-content/70' : ''} ${isInside ? 'bg-base-300' : ''}`}
            style={{ gridColumn: at + 1 }}
            onMouseDown={(event) => hands.press(index, at, event)}
            onClick={() => column.id === 'title' && hands.open(item.id)}
            onDoubleClick={() => column.kind === 'field' && column.edit && hands.edit()}
            onKeyDown={undefined}
          >
            {isHere && editing && column.kind === 'field' && column.edit ? (
              <CellEditor item={item} column={column} begun={editing.begun} write={hands.write} done={hands.done} />
            ) : (
              <NetCell item={item} column={column} chosen={isChosen} toggle={() => hands.toggle(item.id, isChosen)} />
            )}
          </div>
        );
      })}
    </div>
  );
});
