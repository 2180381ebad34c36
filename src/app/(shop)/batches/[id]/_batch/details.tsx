'use client';

import { useState } from 'react';
import type { BatchView } from '@/services/intake/find-batch';
import { Dialog } from '@/ui/controls/dialog';
import { ApiProblem, api } from '@/ui/data/api';
import { useSells } from '@/ui/data/me';
import { submitted, useCommand } from '@/ui/data/use-command';
import { BatchFields, readBatch } from '../../_batches/batch-fields';
import { HandShares, readShares } from './hand-shares';

/** What is written of a batch: its name, where it came from, what all of it cost and how that is shared out. */
export function Details({ batch, close }: { batch: BatchView; close: () => void }) {
  const [way, setWay] = useState(batch.shareBy);
  const sells = useSells();
  const touches = [['batch', batch.id], ['batches']];
  const save = useCommand(
    async (form: FormData, share: boolean) => {
      const shares = readShares(form, batch.shares);
      const body = { baseVersion: batch.version, ...readBatch(form), shares };
      await api('PATCH /batches/{id}', { params: { id: batch.id }, body });
      if (!share) {
        close();
        return undefined;
      }
      const { items } = await api('POST /batches/{id}/share', { params: { id: batch.id }, body: {} });
      close();
      return items === 1 ? 'One item has another cost now' : `${items} items have another cost now`;
    },
    { touches },
  );
  const problem = save.problem
    ? { field: save.error instanceof ApiProblem ? save.error.field : undefined, text: save.problem }
    : undefined;
  return (
    <Dialog title={batch.name} close={close}>
      <form className="space-y-4" onSubmit={submitted((form) => void save.run(form, false))}>
        <BatchFields batch={batch} problem={problem} shared={setWay} />
        {sells && way === 'hand' ? <HandShares batch={batch} /> : null}
        {problem ? (
          <p role="alert" className="text-error">
            {problem.text}
          </p>
        ) : null}
        <div className="flex gap-2">
          <button type="submit" className="btn btn-primary btn-sm" disabled={save.busy}>
            Keep
          </button>
          {sells ? (
            <button
              type="button"
              className="btn btn-sm"
              disabled={save.busy}
              onClick={(event) => {
                const { form } = event.currentTarget;
                if (form) void save.run(new FormData(form), true);
              }}
            >
              Keep, and write the shares into the items
            </button>
          ) : null}
        </div>
      </form>
    </Dialog>
  );
}
