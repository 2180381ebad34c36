'use client';

import type { SheetColumn } from '@/services/items/item-sheet';
import type { SheetRow } from '../rows';
import { shown } from '../shown';

/** One row spread out: the whole value of every marketplace below the other, with length, origin and issues. */
export function Compare({ row, columns }: { row: SheetRow | undefined; columns: SheetColumn[] }) {
  if (!row) return <p className="quiet p-3">Click on the name of a row to spread it out here.</p>;
  return (
    <ul className="divide-y divide-base-300" aria-label={`${row.label} everywhere`}>
      {columns.map((column) => {
        const field = row.fieldOf(column);
        const used = field && field.origin !== 'unused';
        return (
          <li key={column.accountId} className="px-3 py-2">
            <p className="flex items-baseline gap-2 text-[12px]">
              <b className="font-medium">{column.name}</b>
              {field?.length !== undefined && field.max !== undefined ? (
                <span className={`figures ${field.length > field.max ? 'text-error' : 'quiet'}`}>
                  {field.length}/{field.max}
                </span>
              ) : null}
              <span className="quiet">{field ? (field.how ?? field.origin) : ''}</span>
            </p>
            <p dir="auto" className={`wrap-anywhere whitespace-pre-line ${used ? '' : 'quiet'}`}>
              {used ? shown(field, column) || '–' : 'not used there'}
            </p>
            {field?.issues.map((issue) => (
              <p key={issue.code} className="text-[12px] text-warning">
                {issue.message}
              </p>
            ))}
          </li>
        );
      })}
    </ul>
  );
}
