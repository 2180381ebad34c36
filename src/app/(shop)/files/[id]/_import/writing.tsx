'use client';

import type { ImportView } from '@/services/importing/find-imports';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const formats = { csv: 'CSV', xlsx: 'Spreadsheet', json: 'JSON', ndjson: 'NDJSON', xml: 'XML' };
const separators = [
  [',', 'Comma'],
  [';', 'Semicolon'],
  ['\t', 'Tab'],
  ['|', 'Bar'],
] as const;
const encodings = [
  ['utf-8', 'UTF-8'],
  ['utf-16le', 'UTF-16'],
  ['utf-16be', 'UTF-16, big end first'],
  ['windows-1252', 'Windows-1252'],
] as const;

/** How the file is written, as it was recognised; said otherwise, it is read anew. */
export function Writing({ file }: { file: ImportView }) {
  const { layout } = file;
  const isOver = file.state === 'applying' || file.state === 'applied';
  const say = useCommand(
    async (part: Record<string, unknown>) => {
      await api('PATCH /imports/{id}', { params: { id: file.id }, body: { layout: part } });
      return undefined;
    },
    { touches: [['imports']], tells: true },
  );
  const disabled = isOver || say.busy;
  return (
    <div className="ml-auto flex flex-wrap items-center gap-3">
      <span>{formats[layout.format]}</span>
      {layout.format === 'csv' ? (
        <>
          <select
            aria-label="Sign between the columns"
            className="select select-sm w-34"
            disabled={disabled}
            value={layout.separator}
            onChange={(event) => void say.run({ separator: event.target.value })}
          >
            {separators.map(([sign, name]) => (
              <option key={sign} value={sign}>
                {name}
              </option>
            ))}
          </select>
          <select
            aria-label="Encoding"
            className="select select-sm w-44"
            disabled={disabled}
            value={layout.encoding}
            onChange={(event) => void say.run({ encoding: event.target.value })}
          >
            {encodings.map(([code, name]) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </select>
        </>
      ) : null}
      {layout.sheets ? (
        <select
          aria-label="Sheet of the workbook"
          className="select select-sm w-44"
          disabled={disabled}
          value={layout.sheet ?? ''}
          onChange={(event) => void say.run({ sheet: event.target.value })}
        >
          {layout.sheet === undefined ? <option value="">First sheet with rows</option> : null}
          {layout.sheets.map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      ) : null}
      {layout.format === 'csv' || layout.format === 'xlsx' ? (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            disabled={disabled}
            checked={layout.hasHeader}
            onChange={(event) => void say.run({ hasHeader: event.target.checked })}
          />
          The first row names the columns
        </label>
      ) : null}
    </div>
  );
}
