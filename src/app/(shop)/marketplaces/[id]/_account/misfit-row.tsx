import type { Misfit } from '@/services/accounts/find-violations';

('use client');

import Link from 'next/link';
import { useState } from 'react';
import { ApiProblem, api } from '@/ui/api';
import { useNotice } from '@/ui/providers';

/** One cause with its number of listings and the one mend for all of them. */
export function MisfitRow({ misfit, changed }: { misfit: Misfit; changed: () => void }) {
  const notice = useNotice();
  const [value, setValue] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const count = misfit.live + misfit.drafts;
  const mend = async (send: boolean) => {
    setBusy(true);
    setProblem('');
    try {
      const done = await api<{ listings: number; left: number; queued: number }>('/mends', {
        method: 'POST',
        body: {
          accountId: misfit.accountId,
          code: misfit.code,
          field: misfit.field,
          message: misfit.message,
          ...(value ? { value } : {}),
          send,
        },
      });
      notice(
        `${done.listings} ${done.listings === 1 ? 'listing fits' : 'listings fit'} now${done.left ? `, ${done.left} still do not` : ''}${done.queued ? `; ${done.queued} are being sent` : ''}`,
      );
      changed();
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : 'This could not be mended');
    } finally {
      setBusy(false);
    }
  };
  const needsValue = misfit.how === 'choose' || misfit.how === 'write';
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2" data-misfit={misfit.code}>
      <span className="figures w-36 text-right whitespace-nowrap">
        <b>{misfit.live}</b> live, {misfit.drafts} waiting
      </span>
      <span className="min-w-48 flex-1">
        {misfit.message}
        <span className="quiet block text-[12px]">
          {misfit.items.map((item, index) => (
            <span key={item.id}>
              {index ? ', ' : ''}
              <Link
                className="mono underline decoration-dotted"
                href={`/items/${item.id}#row-${misfit.field}`}
                title={item.title}
              >
                {item.sku}
              </Link>
            </span>
          ))}
          {count > misfit.items.length ? ' …' : ''}
        </span>
        {problem ? (
          <span role="alert" className="block text-error">
            {problem}
          </span>
        ) : null}
      </span>
      {misfit.how === 'choose' ? (
        <select
          aria-label={`${misfit.mend.label}: ${misfit.message}`}
          className="select select-sm w-56"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        >
          <option value="">{misfit.mend.label} …</option>
          {misfit.choices.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.label}
            </option>
          ))}
        </select>
      ) : null}
      {misfit.how === 'write' ? (
        <input
          aria-label={`${misfit.mend.label}: ${misfit.message}`}
          className="input input-sm w-56"
          placeholder={misfit.mend.label}
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
      ) : null}
      {misfit.how === 'item' ? (
        <span className="quiet">{misfit.mend.label}, item by item</span>
      ) : (
        <>
          <button
            type="button"
            className="btn btn-sm"
            disabled={busy || (needsValue && !value)}
            onClick={() => void mend(false)}
          >
            {misfit.how === 'click' ? misfit.mend.label : 'Mend'} for {count}
          </button>
          {misfit.live ? (
            <button
              type="button"
              className="btn btn-sm"
              disabled={busy || (needsValue && !value)}
              onClick={() => void mend(true)}
            >
              Mend and send
            </button>
          ) : null}
        </>
      )}
    </li>
  );
}
