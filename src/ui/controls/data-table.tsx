'use client';

import { type ColumnDef, flexRender, getCoreRowModel, useReactTable } from '@tanstack/react-table';
import { memo, type ReactNode, useMemo } from 'react';

export type Column<Row> = {
  id: string;
  /** What stands at the head; a word that is only heard when `headFor` says whom it is for. */
  head: ReactNode;
  /** The head is there for those who hear the page, not to be seen. */
  isHeard?: boolean;
  cell: (row: Row) => ReactNode;
  /** Numbers stand to the right. */
  align?: 'left' | 'right';
  /** The cell that names its row. */
  names?: boolean;
  /** Of the head and the cells: widths. */
  className?: string;
  /** Of the cells alone: how their text looks. */
  cellClass?: string;
};

/** Rows that can be chosen, by their id. */
export type Choice<Row> = {
  chosen: number[];
  choose: (ids: number[]) => void;
  /** What the box before a row chooses, in words. */
  label: (row: Row) => string;
  /** All of them at once, in words; without it each is chosen by itself. */
  all?: string;
  canBe?: (row: Row) => boolean;
};

type Props<Row> = {
  rows: Row[];
  columns: Column<Row>[];
  idOf: (row: Row) => string | number;
  /** `page` fills the width of the page, `part` stands inside something else. */
  look?: 'page' | 'part';
  /** The head stays while the rows move. */
  sticky?: boolean;
  fixed?: boolean;
  choice?: Choice<Row>;
  rowClass?: (row: Row) => string;
};

const looks = {
  page: {
    head: 'bg-base-200 text-[12px]',
    headCell: 'px-2 py-1.5 font-medium first:pl-4 last:pr-4',
    row: 'border-b border-base-300/60',
    cell: 'px-2 py-1 first:pl-4 last:pr-4',
  },
  part: {
    head: 'quiet border-b border-base-300',
    headCell: 'py-1 pr-3 font-medium last:pr-0',
    row: 'border-b border-base-300/50',
    cell: 'py-1.5 pr-3 last:pr-0',
  },
} as const;

const side = (align: 'left' | 'right' | undefined) => (align === 'right' ? 'text-right' : 'text-left');

function columnOf<Row>(column: Column<Row>): ColumnDef<Row> {
  return {
    id: column.id,
    header: () => (column.isHeard ? <span className="sr-only">{column.head}</span> : column.head),
  };
}

function boxes<Row>(
  { chosen, choose, label, all, canBe }: Choice<Row>,
  rows: Row[],
  idOf: Props<Row>['idOf'],
): Column<Row> {
  const ids = rows.filter((row) => canBe?.(row) ?? true).map((row) => Number(idOf(row)));
  return {
    id: 'choose',
    head: all ? (
      <input
        type="checkbox"
        aria-label={all}
        className="checkbox checkbox-sm"
        checked={chosen.length > 0 && chosen.length === ids.length}
        onChange={(event) => choose(event.target.checked ? ids : [])}
      />
    ) : (
      'Choose'
    ),
    isHeard: !all,
    className: 'w-10',
    cell: (row) => {
      const id = Number(idOf(row));
      return (
        <input
          type="checkbox"
          aria-label={label(row)}
          className="checkbox checkbox-sm"
          checked={chosen.includes(id)}
          onChange={() => choose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])}
        />
      );
    },
  };
}

type BodyRowProps<Row> = { row: Row; columns: Column<Row>[]; cellLook: string; look: string };

function PlainRow<Row>({ row, columns, cellLook, look }: BodyRowProps<Row>) {
  return (
    <tr className={look}>
      {columns.map((column) => {
        const name = `${cellLook} ${side(column.align)} ${column.align === 'right' ? 'figures' : ''} ${column.className ?? ''} ${column.cellClass ?? ''}`;
        return column.names ? (
          <th key={column.id} scope="row" className={`${name} font-normal`}>
            {column.cell(row)}
          </th>
        ) : (
          <td key={column.id} className={name}>
            {column.cell(row)}
          </td>
        );
      })}
    </tr>
  );
}
/** A row is drawn again when it became another: of a list that grows by one only the new one is. */
const BodyRow = memo(PlainRow) as typeof PlainRow;

/** A table of rows: heads, cells, numbers to the right, boxes to choose by. The one way in which tables are drawn. */
export function DataTable<Row>({ rows, columns, idOf, look = 'page', sticky, fixed, choice, rowClass }: Props<Row>) {
  const all = useMemo(
    () => (choice ? [boxes(choice, rows, idOf), ...columns] : columns),
    [choice, rows, idOf, columns],
  );
  const table = useReactTable({
    data: rows,
    columns: useMemo(() => all.map(columnOf), [all]),
    getCoreRowModel: getCoreRowModel(),
    getRowId: (row) => String(idOf(row)),
  });
  const byId = new Map(all.map((column) => [column.id, column]));
  const style = looks[look];
  return (
    // On a phone a wide table moves by itself; on a desk its head sticks to the page.
    <div className="relative max-md:overflow-x-auto">
      <table className={`w-full ${look === 'part' ? 'border-collapse text-[13px]' : ''} ${fixed ? 'table-fixed' : ''}`}>
        <thead className={`${style.head} ${sticky ? 'sticky top-0 z-10 bg-base-200' : ''}`}>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map((header) => {
                const column = byId.get(header.column.id);
                return (
                  <th
                    key={header.id}
                    scope="col"
                    className={`${style.headCell} ${side(column?.align)} ${column?.className ?? ''}`}
                  >
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map((row) => (
            <BodyRow
              key={row.id}
              row={row.original}
              columns={all}
              cellLook={style.cell}
              look={`${style.row} ${rowClass?.(row.original) ?? ''}`}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}
