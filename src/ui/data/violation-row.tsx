'use client';

import { useState } from 'react';
import type { Violation } from '@/services/accounts/rules/find-violations';
import { Link } from '../controls/link';
import { api } from './api';
import { useCommand } from './use-command';

/** One cause with its number of listings and the one mend for all of them. */
export function ViolationRow({ violation, changed }: { violation: Violation; changed: () => void }) {
  const [value, setValue] = useState('');
  const count = violation.live + violation.drafts;
  const fix = useCommand(async (send: boolean) => {
    const done = await api('POST /fixes', {
      body: {
        accountId: violation.accountId,
        code: violation.code,
        field: violation.field,
        message: violation.message,
        ...(value ? { value } : {}),
        send,
      },
    });
    changed();

    return `${done.listings} ${done.listings === 1 ? 'listing fits' : 'listings fit'} now${done.left ? `, ${done.left} still do not` : ''}${done.queued ? `; ${done.queued} are being sent` : ''}`;
  });
  const needsValue = violation.how === 'choose' || violation.how === 'write';
  return (
    <li className="flex flex-wrap items-center gap-x-3 gap-y-1 py-2" data-violation={violation.code}>
      <span className="figures w-36 text-right whitespace-nowrap">
        <b>{violation.live}</b> live, {violation.drafts} waiting
      </span>
      <span className="min-w-48 flex-1">
        {violation.message}
        <span className="quiet block text-[12px]">
          {violation.items.map((item, index) => (
            <span key={item.id}>
              {index ? ', ' : ''}
              <Link
                className="mono underline decoration-dotted"
                href={`/items/${item.id}#row-${violation.field}`}
                title={item.title}
              >
                {item.sku}
              </Link>
            </span>
          ))}
          {count > violation.items.length ? ' …' : ''}
        </span>
        {fix.problem ? (
          <span role="alert" className="block text-error">
            {fix.problem}
          </span>
        ) : null}
      </span>
      {violation.how === 'choose' ? (
        <select
          aria-label={`${violation.fix.label}: ${violation.message}`}
          className="select select-sm w-56"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        >
          <option value="">{violation.fix.label} …</option>
          {violation.choices.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.label}
            </option>
          ))}
        </select>
      ) : null}
      {violation.how === 'write' ? (
        <input
          aria-label={`${violation.fix.label}: ${violation.message}`}
          className="input input-sm w-56"
          placeholder={violation.fix.label}
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
      ) : null}
      {violation.how === 'item' ? (
        <span className="quiet">{violation.fix.label}, item by item</span>
      ) : (
        <>
          <button
            type="button"
            className="btn btn-sm"
            disabled={fix.busy || (needsValue && !value)}
            onClick={() => void fix.run(false)}
          >
            {violation.how === 'click' ? violation.fix.label : 'Mend'} for {count}
          </button>
          {violation.live ? (
            <button
              type="button"
              className="btn btn-sm"
              disabled={fix.busy || (needsValue && !value)}
              onClick={() => void fix.run(true)}
            >
              Mend and send
            </button>
          ) : null}
        </>
      )}
    </li>
  );
}
