'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Violation } from '@/services/accounts/rules/find-violations';
import { Link } from '../controls/link';
import { shownValue } from '../controls/shown-value';
import { api } from './api';
import { useCommand } from './use-command';

/** What the mend would make of the first of them, before it is done. */
function Foreseen({ violation, value }: { violation: Violation; value: string }) {
  const { accountId, code, field, message } = violation;
  const body = { accountId, code, field, message, ...(value ? { value } : {}) };
  const { data } = useQuery({
    queryKey: ['foreseen-fix', body],
    queryFn: () => api('POST /fixes/foreseen', { body }),
    // What is typed is not asked about with every letter.
    enabled: violation.how !== 'write' || value.length > 1,
    retry: false,
  });
  const changed = data?.listings.filter((one) => one.after !== null) ?? [];
  if (!data || (changed.length === 0 && !data.ends)) return null;
  return (
    <span className="mt-1 block text-[12px]" data-foreseen>
      {data.ends
        ? `${data.count} would be ended there`
        : changed.map((one, index) => (
            <span key={one.itemId}>
              {index ? ', ' : ''}
              <span className="mono">{one.sku}</span>{' '}
              <s className="quiet">{shownValue(field, one.before, data.currency)}</s>{' '}
              <b>{shownValue(field, one.after, data.currency)}</b>
            </span>
          ))}
      {!data.ends && data.count > changed.length ? ` and ${data.count - changed.length} more` : ''}
    </span>
  );
}

/** One cause with its number of listings and the one mend for all of them. */
export function ViolationRow({ violation, changed }: { violation: Violation; changed: () => void }) {
  const [value, setValue] = useState('');
  /** What was written, where it can be taken back. */
  const [runId, setRunId] = useState<number | null>(null);
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
    setRunId(done.runId);
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
        {violation.how === 'item' || (needsValue && !value) ? null : <Foreseen violation={violation} value={value} />}
        {runId === null ? null : (
          <Link className="block text-[12px] underline" href={`/runs/${runId}`}>
            See what was changed, or take it back
          </Link>
        )}
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
