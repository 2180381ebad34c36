'use client';

import type { Answer } from '@/http/interface';
import type { ImportView } from '@/services/importing/find-imports';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

type Row = Answer<'GET /imports/{id}/rows'>['rows'][number];

/** Whose value holds in a whole column, where both sides changed it; a row decided by itself stays so. */
export function WholeColumns({ file, rows }: { file: ImportView; rows: Row[] }) {
  const { decided } = file.options;
  const say = useCommand(
    async (column: string, side: 'file' | 'ours') => {
      const body = { options: { decided: { ...decided, [column]: side } } };
      await api('PATCH /imports/{id}', { params: { id: file.id }, body });
      return undefined;
    },
    { touches: [['imports']], tells: true },
  );
  const labels = new Map(
    rows.flatMap((row) => row.cells.flatMap((cell) => (cell.isConflict ? [[cell.column, cell.label] as const] : []))),
  );
  return (
    <div className="flex flex-wrap gap-x-4 gap-y-1 border-b border-base-300 px-4 py-1.5">
      {[...labels].map(([column, label]) => (
        <label key={column} className="flex items-center gap-2">
          <span>{label}, all rows</span>
          <select
            className="select select-sm w-44"
            value={decided[column] ?? 'ours'}
            disabled={say.busy}
            onChange={(event) => void say.run(column, event.target.value === 'file' ? 'file' : 'ours')}
          >
            <option value="ours">What is here stays</option>
            <option value="file">What the file says holds</option>
          </select>
        </label>
      ))}
    </div>
  );
}
