'use client';

import { useState } from 'react';
import type { Answer } from '@/http/interface';
import type { ImportView } from '@/services/importing/find-imports';
import { Link } from '@/ui/controls/link';
import { WordDiff } from '@/ui/controls/word-diff';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

type Row = Answer<'GET /imports/{id}/rows'>['rows'][number];

/** One row of the file: which item, what becomes of each field, and whether it is carried out. */
export function RowView({ file, row }: { file: ImportView; row: Row }) {
  // Shown as it was said, before it is kept; saving waits for that.
  const [said, setSaid] = useState<{ leftOut?: boolean; decided?: 'file' | 'ours' }>({});
  const { leftOut, decided } = { ...row, ...said };
  const say = useCommand(
    async (part: { leftOut?: boolean; decided?: 'file' | 'ours' }) => {
      setSaid((now) => ({ ...now, ...part }));
      await api('PATCH /imports/{id}/rows', { params: { id: file.id }, body: { lines: [row.line], ...part } });
      return undefined;
    },
    { touches: [['imports', file.id, 'rows']], tells: true },
  );
  const keep = (part: Parameters<typeof say.run>[0]) => void say.run(part).then((fine) => fine || setSaid({}));
  const name = row.label || `Line ${row.line}`;
  const canChange = file.state === 'checked' && row.kind !== 'refused';
  return (
    <li className={`border-b border-base-300/60 px-4 py-1.5 ${leftOut ? 'opacity-50' : ''}`}>
      <div className="flex items-baseline gap-2">
        {canChange ? (
          <input
            type="checkbox"
            className="checkbox checkbox-xs self-center"
            aria-label={`Carry out ${name}`}
            checked={!leftOut}
            onChange={(event) => keep({ leftOut: !event.target.checked })}
          />
        ) : null}
        {row.itemId ? (
          <Link className="min-w-0 truncate font-medium hover:underline" href={`/items/${row.itemId}`}>
            {name}
          </Link>
        ) : (
          <span className="min-w-0 truncate font-medium">{name}</span>
        )}
        <span className="quiet figures ml-auto shrink-0 text-[12px]">line {row.line}</span>
      </div>
      {row.why ? (
        <p className="text-error">
          {row.column ? `${row.column}: ` : ''}
          {row.why}
        </p>
      ) : null}
      {row.cells.length ? (
        <dl className="grid grid-cols-[minmax(8rem,14rem)_1fr] gap-x-3">
          {row.cells.map((cell) => (
            <div key={cell.column} className="contents">
              <dt className="quiet truncate">{cell.label}</dt>
              <dd className="min-w-0">
                <Became before={cell.now} after={cell.becomes} />
                {cell.said ? <span className="quiet block text-[12px]">{cell.said}</span> : null}
                {cell.isConflict ? (
                  <span className="quiet block text-[12px]">
                    Written out as “{cell.exported}”; changed here and in the file.
                  </span>
                ) : null}
              </dd>
            </div>
          ))}
        </dl>
      ) : null}
      {row.kind === 'conflict' && canChange ? (
        <Decision file={file} row={{ ...row, decided }} decide={(side) => keep({ decided: side })} />
      ) : null}
    </li>
  );
}

const isNumber = (text: string) => /^[+-]?\d[\d.,]*( \w+)?$/.test(text);

/** Old and new: numbers whole, words by their differences. */
function Became({ before, after }: { before: string; after: string }) {
  if (!isNumber(before) || !isNumber(after)) return <WordDiff before={before} after={after} />;
  return (
    <span className="figures">
      <del className="quiet">{before}</del> <ins className="font-semibold no-underline">{after}</ins>
    </span>
  );
}

/** Whose value holds where both sides changed it: in this row, or in a whole column. */
function Decision({ file, row, decide }: { file: ImportView; row: Row; decide: (decided: 'file' | 'ours') => void }) {
  const now =
    row.decided ??
    (row.cells.some((cell) => cell.isConflict && file.options.decided[cell.column] === 'file') ? 'file' : 'ours');
  return (
    <fieldset className="mt-0.5 flex items-center gap-4">
      <legend className="sr-only">Whose value holds in line {row.line}</legend>
      {(
        [
          ['ours', 'What is here stays'],
          ['file', 'What the file says holds'],
        ] as const
      ).map(([side, label]) => (
        <label key={side} className="flex items-center gap-1.5">
          <input
            type="radio"
            name={`line-${row.line}`}
            className="radio radio-xs"
            checked={now === side}
            onChange={() => decide(side)}
          />
          {label}
        </label>
      ))}
    </fieldset>
  );
}
