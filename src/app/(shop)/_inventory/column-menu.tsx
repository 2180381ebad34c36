'use client';

import { useState } from 'react';
import { useEscape } from '@/ui/frame/use-escape';
import type { Column, ColumnPreferences } from './columns';

/** Which columns the net shows. */
export function ColumnMenu({
  columns,
  preferences,
  change,
}: {
  columns: Column[];
  preferences: ColumnPreferences;
  change: (next: ColumnPreferences) => void;
}) {
  const [open, setOpen] = useState(false);
  useEscape(open, () => setOpen(false));
  return (
    <div className="relative">
      <button type="button" className="btn btn-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
        Columns
      </button>
      {open ? (
        <fieldset className="absolute right-0 z-20 mt-1 w-48 rounded border border-base-300 bg-base-100 p-3 shadow-lg">
          <legend className="sr-only">Columns to show</legend>
          {columns
            .filter((column) => column.kind !== 'check' && column.id !== 'title')
            .map((column) => (
              <label key={column.id} className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  checked={!preferences.hidden.includes(column.id)}
                  onChange={(event) =>
                    change({
                      ...preferences,
                      hidden: event.target.checked
                        ? preferences.hidden.filter((id) => id !== column.id)
                        : [...preferences.hidden, column.id],
                    })
                  }
                />
                {column.label}
              </label>
            ))}
        </fieldset>
      ) : null}
    </div>
  );
}
