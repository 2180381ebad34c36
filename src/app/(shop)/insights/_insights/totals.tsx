import type { InsightTable } from '@/core/insight/table';
import { cellOf, written } from './figure';

const signs: Record<string, string> = { fees: '−', postage: '−', packing: '−', cost: '−', net: '=' };

type Props = {
  table: InsightTable;
  currency: string;
  open: (title: string, behind: Record<string, string>) => void;
};

/** What was taken, what went off it, and what is left, so that it adds up on sight; below it what it is compared with. */
export function Totals({ table, currency, open }: Props) {
  const [now] = table.rows;
  const isNothing = now?.cells.slice(1).every((cell) => !cell);
  if (isNothing && table.rows.length === 1)
    return <p className="quiet py-2">Nothing was sold in this time. Choose a longer one above.</p>;
  return (
    <div className="overflow-x-auto">
      <table className="my-1">
        <thead>
          <tr className="quiet text-[12px]">
            {table.columns.map(({ id, head }) => (
              <th key={id} scope="col" className="pr-2 text-left font-normal">
                {signs[id] ? <span className="mr-2 inline-block w-3" /> : null}
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row, line) => (
            <tr key={row.key} className={line ? 'quiet' : ''}>
              {table.columns.map(({ id, kind }) => {
                const value = cellOf(table, row, id);
                const isPart = id in signs && id !== 'net' && typeof value === 'number';
                const text = written(isPart ? Math.abs(value) : value, kind, currency);
                const size = line ? '' : 'text-base';
                if (id === 'period')
                  return (
                    <th key={id} scope="row" className="pr-6 text-left font-normal">
                      <button
                        type="button"
                        className="min-h-6 underline decoration-dotted underline-offset-4 hover:decoration-solid"
                        title="Show what was sold in this time"
                        onClick={() => row.behind && open(`Sold ${text}`, row.behind)}
                      >
                        {text}
                      </button>
                    </th>
                  );
                return (
                  <td key={id} className={`figures pr-2 ${size} ${id === 'net' && !line ? 'font-semibold' : ''}`}>
                    {signs[id] ? <span className="quiet mr-2 inline-block w-3">{signs[id]}</span> : null}
                    {text}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
