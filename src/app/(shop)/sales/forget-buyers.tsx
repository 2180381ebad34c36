'use client';

import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '@/ui/api';
import { Dialog } from '@/ui/dialog';
import { useNotice } from '@/ui/providers';

/** Of a buyer only the town is kept, and that can be taken out. */
export function ForgetBuyers() {
  const client = useQueryClient();
  const notice = useNotice();
  const [open, setOpen] = useState(false);
  const [days, setDays] = useState('365');
  const [problem, setProblem] = useState('');
  const valid = /^\d{1,4}$/.test(days) && Number(days) <= 3_650;
  const forget = async () => {
    try {
      const { forgotten } = await api<{ forgotten: number }>('/sales/forget-buyers', {
        method: 'POST',
        body: { olderThanDays: Number(days) },
      });
      notice(`The town is forgotten in ${forgotten} ${forgotten === 1 ? 'sale' : 'sales'}`);
      setOpen(false);
      await client.invalidateQueries({ queryKey: ['sales'] });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'That did not work');
    }
  };
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
          {problem || !valid ? (
            <p role="alert" className="mt-2 text-error">
              {problem || 'Write a whole number of days, at most 3,650'}
            </p>
          ) : null}
          <button type="button" className="btn btn-error btn-sm mt-3" disabled={!valid} onClick={() => void forget()}>
            Forget the town in all of them
          </button>
        </Dialog>
      ) : null}
    </>
  );
}
