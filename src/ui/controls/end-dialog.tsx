'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Selection } from '@/services/records/items/selection';
import { useAccounts } from '../data/accounts';
import { api } from '../data/api';
import { counted } from '../data/counted';
import { useCommand } from '../data/use-command';
import { Dialog } from './dialog';
import { Link } from './link';
import { Failed, Loading } from './states';

/** Ends listings of chosen items: on which accounts, how many of them stand there, and where to watch it. */
export function EndDialog({
  selection,
  only,
  close,
}: {
  selection: Selection;
  /** The accounts that are ticked at first; all of them when left out. */
  only?: number[];
  close: () => void;
}) {
  const { accountOf } = useAccounts();
  const [off, setOff] = useState<number[]>([]);
  const [runId, setRunId] = useState<number | null>(null);
  const { data, error, refetch } = useQuery({
    queryKey: ['live-counts', selection],
    queryFn: () => api('POST /listings/end/count', { body: { selection } }),
    gcTime: 0,
  });
  const isOn = (id: number) => (only === undefined || only.includes(id)) !== off.includes(id);
  const chosen = data?.accounts.filter((one) => isOn(one.accountId)) ?? [];
  const total = chosen.reduce((sum, one) => sum + one.live, 0);
  const end = useCommand(
    async () => {
      const { runId: id, queued } = await api('POST /listings/end', {
        body: { selection, accounts: chosen.map((one) => one.accountId) },
      });
      setRunId(id);
      return `${counted(queued, 'listing')} ${queued === 1 ? 'ends' : 'end'}`;
    },
    { touches: [['items'], ['sheet'], ['runs'], ['stages']] },
  );
  return (
    <Dialog title="End listings" close={close}>
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {!data && !error ? <Loading what="what is live" /> : null}
      {data?.accounts.length === 0 ? <p>None of these is live anywhere.</p> : null}
      {runId !== null ? (
        <p role="status">
          They are being ended.{' '}
          <Link className="link" href={`/outbox?run=${runId}`}>
            Watch it in the outbox
          </Link>
          , where it can be taken back, too.
        </p>
      ) : data && data.accounts.length > 0 ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void end.run();
          }}
        >
          <p className="quiet mb-2">
            The items stay here with their stock; what was written for an account stays, too. They can be published
            again.
          </p>
          <ul className="mb-3 space-y-1">
            {data.accounts.map(({ accountId, live }) => (
              <li key={accountId}>
                <label className="flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    checked={isOn(accountId)}
                    onChange={() =>
                      setOff(off.includes(accountId) ? off.filter((id) => id !== accountId) : [...off, accountId])
                    }
                  />
                  <span className="flex-1">{accountOf(accountId)?.name ?? ''}</span>
                  <span className="figures quiet">{live.toLocaleString('en')} live</span>
                </label>
              </li>
            ))}
          </ul>
          {end.problem ? (
            <p role="alert" className="mb-2 text-error">
              {end.problem}
            </p>
          ) : null}
          <button type="submit" className="btn btn-error btn-sm" disabled={total === 0 || end.busy}>
            End {counted(total, 'listing')}
          </button>
        </form>
      ) : null}
    </Dialog>
  );
}
