'use client';

import { useQuery } from '@tanstack/react-query';
import type { Rate } from '@/core/measure/rate';
import { DataTable } from '@/ui/controls/data-table';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** Exchange rates with the day they are of; the newest one of a currency is used. */
export function Rates() {
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['rates'],
    queryFn: () => api('GET /rates'),
  });
  const renew = useCommand(
    async () => {
      await api('POST /rates');
      return 'Rates are of today; prices in other currencies are computed anew';
    },
    { touches: [['rates']] },
  );
  const forget = useCommand(
    async (rate: Rate) => {
      await api('POST /rates/forget', { body: { to: rate.to, date: rate.date } });
      return `The ${rate.to} rate of ${rate.date} is taken back`;
    },
    { touches: [['rates']], tells: true },
  );
  return (
    <section aria-labelledby="rates">
      <h2 id="rates" className="mb-2 font-semibold">
        Exchange rates
      </h2>
      {isPending ? <Loading what="the rates" /> : null}
      {isError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.rates.length === 0 ? <p className="quiet">No rate was read yet.</p> : null}
      {data?.rates.length ? (
        <DataTable
          look="part"
          rows={data.rates}
          idOf={(rate) => `${rate.to}/${rate.date}`}
          columns={[
            { id: 'one', head: 'One', cell: (rate) => rate.from },
            {
              id: 'worth',
              head: 'is worth',
              align: 'right',
              cell: (rate) => `${(rate.millionths / 1e6).toFixed(4)} ${rate.to}`,
            },
            { id: 'of', head: 'of', align: 'right', cellClass: 'quiet', cell: (rate) => rate.date },
            {
              id: 'forget',
              head: 'Take back',
              isHeard: true,
              align: 'right',
              cell: (rate) => (
                <button
                  type="button"
                  className="btn btn-ghost btn-xs"
                  aria-label={`Take back ${rate.to} of ${rate.date}`}
                  onClick={() => void forget.run(rate)}
                >
                  Take back
                </button>
              ),
            },
          ]}
        />
      ) : null}
      {renew.problem ? (
        <p role="alert" className="mt-2 text-error">
          {renew.problem}
        </p>
      ) : null}
      <button type="button" className="btn btn-sm mt-3" onClick={() => void renew.run()}>
        Ask for today’s rates
      </button>
    </section>
  );
}
