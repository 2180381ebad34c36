'use client';

import { useQuery } from '@tanstack/react-query';
import type { ExportView } from '@/services/exporting/find-exports';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';

const files: { label: string; title: string; query: string }[] = [
  { label: 'CSV', title: 'Comma between the columns', query: 'format=csv' },
  {
    label: 'CSV ;',
    title: 'Semicolon between the columns, with the mark of UTF-8',
    query: 'format=csv&separator=semicolon&mark=true',
  },
  { label: 'XLSX', title: 'A spreadsheet: numbers that name things stay as they are', query: 'format=xlsx' },
  { label: 'JSON', title: 'A list of records', query: 'format=json' },
  { label: 'NDJSON', title: 'One record a line', query: 'format=ndjson' },
  { label: 'XML', title: 'A list of records', query: 'format=xml' },
];

const columns: Column<ExportView>[] = [
  {
    id: 'what',
    head: 'Written out',
    names: true,
    cell: (one) => (
      <>
        {one.title} <span className="quiet">no. {one.id}</span>
        <span className="quiet block text-[12px]">
          {counted(one.items, 'item')}, {counted(one.rows, 'row')}, {counted(one.columns.length, 'column')}
        </span>
      </>
    ),
  },
  { id: 'when', head: 'When', cell: (one) => <When at={one.at} /> },
  {
    id: 'files',
    head: 'As a file',
    cell: (one) =>
      one.isDone ? (
        <span className="flex flex-wrap gap-x-2">
          {files.map(({ label, title, query }) => (
            <a
              key={label}
              className="link"
              title={title}
              aria-label={`${one.title} ${one.id} as ${label}`}
              href={`/api/v1/exports/${one.id}/file?${query}`}
              download
            >
              {label}
            </a>
          ))}
        </span>
      ) : (
        <span role="status" className="quiet">
          {one.rows.toLocaleString('en')} rows by now
        </span>
      ),
  },
];

/** What was written out lately, each as a file of any format. */
export function Exports() {
  const exports = useQuery({
    queryKey: ['exports'],
    queryFn: () => api('GET /exports'),
    refetchInterval: ({ state }) => (state.data?.exports.some((one) => !one.isDone) ? 1_000 : false),
  });
  const rows = exports.data?.exports ?? [];
  if (rows.length === 0)
    return (
      <p className="quiet mt-4">Nothing was written out lately. What is, stands here as a file of every format.</p>
    );
  return (
    <div className="mt-4">
      <DataTable rows={rows} columns={columns} idOf={(one) => one.id} look="part" />
    </div>
  );
}
