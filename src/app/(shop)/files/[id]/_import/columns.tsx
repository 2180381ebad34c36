'use client';

import { useQuery } from '@tanstack/react-query';
import type { ImportView } from '@/services/importing/find-imports';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Options } from './options';

/** Why it was taken for that; what is called so itself needs no word. */
const whys: Record<string, string> = {
  remembered: 'as the last time',
  synonym: 'by what others call it',
  content: 'by what stands in it',
};

const tiedWords: Record<string, string> = {
  'row.item': 'the item’s number',
  sku: 'the stock number',
  barcode: 'the barcode',
};

/** What each column of the file is, as it was recognised; corrected by hand, it is remembered. */
export function Columns({ file }: { file: ImportView }) {
  const choices = useQuery({ queryKey: ['file-columns'], queryFn: () => api('GET /file-columns') });
  const isOver = file.state === 'applying' || file.state === 'applied';
  const tie = useCommand(
    async (at: number, column: string | null) => {
      const ties = file.columns.map((one, index) =>
        index === at ? column : one.column === column ? null : one.column,
      );
      await api('PATCH /imports/{id}', { params: { id: file.id }, body: { ties } });
      return undefined;
    },
    { touches: [['imports']], tells: true },
  );
  const options =
    choices.data?.columns.filter((one) => one.isWritable || one.id.startsWith('row.') || one.id.endsWith('.number')) ??
    [];
  return (
    <section aria-label="Columns" className="min-h-0 overflow-auto p-4">
      <h2 className="mb-1 font-semibold">What the columns are</h2>
      <p className="quiet mb-2 text-[12px]">
        {file.tiedBy
          ? `Rows are tied to items by ${tiedWords[file.tiedBy] ?? 'the marketplace’s number'}.`
          : 'No column says of which item a row is: every row would be a new item.'}{' '}
        {file.exportId ? `It is compared with what was written out as no. ${file.exportId}.` : null}
      </p>
      <table className="w-full table-fixed text-left">
        <thead className="quiet border-b border-base-300 text-[12px]">
          <tr>
            <th className="w-[55%] py-1 font-medium">In the file</th>
            <th className="py-1 font-medium">Is</th>
          </tr>
        </thead>
        <tbody>
          {file.columns.map((one, at) => (
            <tr key={one.header} className="border-b border-base-300/50 align-top">
              <td className="py-1 pr-2">
                <div className="truncate font-medium">{one.header}</div>
                <div className="quiet truncate text-[12px]">{one.samples.join(' · ') || 'nothing in it'}</div>
              </td>
              <td className="py-1">
                <select
                  aria-label={`What ${one.header} is`}
                  className={`select select-sm w-full ${one.column === null ? 'quiet' : ''}`}
                  disabled={isOver || tie.busy}
                  value={one.column ?? ''}
                  onChange={(event) => void tie.run(at, event.target.value || null)}
                >
                  <option value="">left out</option>
                  {one.column && !options.some((choice) => choice.id === one.column) ? (
                    <option value={one.column}>{one.label}</option>
                  ) : null}
                  {options.map((choice) => (
                    <option key={choice.id} value={choice.id}>
                      {choice.label}
                    </option>
                  ))}
                </select>
                {one.column && whys[one.why] ? (
                  <span className="quiet text-[11px]">
                    {whys[one.why]}
                    {one.why === 'remembered' ? '' : `, ${Math.round(one.certainty * 100)} %`}
                  </span>
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <Options file={file} />
    </section>
  );
}
