'use client';

import type { InsightTable as Table } from '@/core/insight/table';
import type { Interface } from '@/http/interface';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { type Row, written } from './figure';

/** A table with how it is read, and its file; its first figure opens the items behind a row. */
export function InsightTable({
  table,
  currency,
  asked,
  open,
  instead,
  children,
}: {
  table: Table;
  currency: string;
  /** What the view was asked. */
  asked: Interface['GET /insights']['query'];
  open: (title: string, behind: Record<string, string>) => void;
  /** How it is shown otherwise than as a table. */
  instead?: React.ReactNode;
  /** What is drawn of it. */
  children?: React.ReactNode;
}) {
  const columns = table.columns.map(
    ({ id, head, kind }, at): Column<Row> => ({
      id,
      head,
      names: at === 0,
      align: kind === 'text' ? 'left' : 'right',
      className: at === 0 ? 'max-w-96' : '',
      cell: (row) => {
        const value = row.cells[at] ?? null;
        const text = written(value, kind, currency);
        const { behind } = row;
        const tone = kind === 'money' && typeof value === 'number' && value < 0 && id === 'net' ? 'text-error' : '';
        if (at === 0 && behind)
          return (
            <button
              type="button"
              className="max-w-96 truncate text-left underline decoration-dotted underline-offset-4 hover:decoration-solid"
              title={`${text}: show the items behind it`}
              onClick={() => open(`${table.title}: ${text}`, behind)}
            >
              {text}
            </button>
          );
        return <span className={kind === 'text' ? '' : `figures ${tone}`}>{text}</span>;
      },
    }),
  );
  return (
    <section aria-labelledby={`insight-${table.id}`} className="border-t border-base-300 px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3">
        <h2 id={`insight-${table.id}`} className="font-semibold">
          {table.title}
        </h2>
        <AsFile of="GET /insights/file" what={table.title} query={{ ...asked, table: table.id }} />
      </div>
      {table.about ? <p className="quiet max-w-[70rem] text-[13px]">{table.about}</p> : null}
      {children}
      {instead ?? <Rows table={table} columns={columns} />}
    </section>
  );
}

/** More rows than anybody reads are shown when they are asked for. */
const mostShown = 60;

function Rows({ table: { title, rows }, columns }: { table: Table; columns: Column<Row>[] }) {
  if (rows.length === 0) return <p className="quiet py-2">Nothing in this time.</p>;
  const all = (
    <div className="overflow-x-auto">
      <DataTable rows={rows} columns={columns} idOf={(row) => row.key} look="part" />
    </div>
  );
  if (rows.length <= mostShown) return all;
  return (
    <details>
      <summary className="cursor-pointer py-1">
        All {rows.length.toLocaleString('en')} figures of {title.toLowerCase()}
      </summary>
      {all}
    </details>
  );
}
