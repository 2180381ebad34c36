'use client';

import { useQuery } from '@tanstack/react-query';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import type { BatchView } from '@/services/intake/find-batch';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

const most = 200;
const nameOf = (line: number) => `share-${line}`;

/** What was said by hand of single lines, in the form; an empty field bears its part of the rest. Throws a sentence where one is none. */
export function readShares(form: FormData, before: Record<string, number>): Record<string, number> {
  const shares = { ...before };
  for (const [name, value] of form) {
    const [, line] = /^share-(\d+)$/.exec(name) ?? [];
    if (line === undefined) continue;
    const text = String(value).trim();
    const amount = text === '' ? null : parseAmount(text, homeCurrency);
    if (text !== '' && (amount === null || amount < 0)) throw new Error(`“${text}” is no share; write it as in 1.50`);
    if (amount === null) delete shares[line];
    else shares[line] = amount;
  }
  return shares;
}

/** The lines of a batch, each with what it bears of the cost as a person says; the newest two hundred. */
export function HandShares({ batch }: { batch: BatchView }) {
  const { data, isPending, error, refetch } = useQuery({
    queryKey: ['batch-lines', batch.id, 'shares'],
    queryFn: () => api('GET /batches/{id}/lines', { params: { id: batch.id }, query: { limit: most } }),
  });
  if (isPending) return <Loading what="the lines" />;
  if (error) return <Failed error={error} retry={() => void refetch()} />;
  const lines = data.lines.filter((line) => line.item && !line.isUndone);
  if (lines.length === 0) return <p className="quiet">Nothing was scanned yet that could bear a share.</p>;
  return (
    <fieldset className="max-h-64 overflow-y-auto">
      <legend className="mb-1">What each line bears; an empty one bears its part of the rest</legend>
      <ul className="space-y-1">
        {lines.map((line) => (
          <li key={line.id}>
            <label className="flex items-center gap-2">
              <span className="mono w-24 truncate text-[12px]">{line.item?.sku}</span>
              <span className="min-w-0 flex-1 truncate">{line.item?.title || line.code}</span>
              {line.units > 1 ? <span className="quiet figures">× {line.units}</span> : null}
              <input
                className="input input-sm figures w-24"
                inputMode="decimal"
                name={nameOf(line.id)}
                defaultValue={
                  batch.shares[line.id] === undefined ? '' : amountToText(batch.shares[line.id] ?? 0, homeCurrency)
                }
              />
            </label>
          </li>
        ))}
      </ul>
      {data.next === null ? null : <p className="quiet">Earlier lines bear their part of the rest.</p>}
    </fieldset>
  );
}
