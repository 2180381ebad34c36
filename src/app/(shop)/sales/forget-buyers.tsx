'use client';

import { useState } from 'react';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** Of a buyer only the town is kept, and that can be taken out. */
export function ForgetBuyers() {
  const [open, setOpen] = useState(false);
  const [days, setDays] = useState('365');
  const valid = /^\d{1,4}$/.test(days) && Number(days) <= 3_650;
  const forget = useCommand(
    async () => {
      const { forgotten } = await api('POST /sales/forget-buyers', { body: { olderThanDays: Number(days) } });
      setOpen(false);
      return `The town is forgotten in ${forgotten} ${forgotten === 1 ? 'sale' : 'sales'}`;
    },
    { touches: [['sales']] },
  );
  return (
    <>
      <button type="button" className="btn btn-sm" onClick={() => setOpen(true)}>
        Forget buyers
      </button>
      {open ? (
        <Dialog title="Forget buyers" close={() => setOpen(false)}>
          <p className="mb-3">
            Of a buyer only the town is kept, so that you see where things go. It can be taken out for good; the sales
            themselves stay.
          </p>
          <label className="flex items-center gap-2">
            Sales older than
            <input
              className="input input-sm figures w-20"
              value={days}
              data-first
              onChange={(event) => setDays(event.target.value)}
            />
            days
          </label>
          {forget.problem || !valid ? (
            <p role="alert" className="mt-2 text-error">
              {forget.problem || 'Write a whole number of days, at most 3,650'}
            </p>
          ) : null}
          <button
            type="button"
            className="btn btn-error btn-sm mt-3"
            disabled={!valid}
            onClick={() => void forget.run()}
          >
            Forget the town in all of them
          </button>
        </Dialog>
      ) : null}
    </>
  );
}
