'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { ListingPart } from '@/core/filter/filter';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import { knotLabels, knotStates } from '@/core/sync/state';
import type { AccountView } from '@/services/accounts/find-accounts';
import { api } from '@/ui/data/api';

const marks = { unsent: 'Changes not sent', drifted: 'Changed there' } as const;
const isMark = (text: string): text is keyof typeof marks => text in marks;

/** Where it is listed, in which state, and what is asked of the listing besides; undefined asks nothing. */
export function ListingPartEditor({
  part,
  accounts,
  set,
}: {
  part: ListingPart | undefined;
  accounts: AccountView[];
  set: (part: ListingPart | undefined) => void;
}) {
  const causes = useQuery({ queryKey: ['causes'], queryFn: () => api('GET /causes'), staleTime: 10_000 });
  const { account, state, cause, liveForDays, netBelow } = part ?? {};
  const change = (next: ListingPart) => {
    const said = Object.fromEntries(Object.entries(next).filter(([, value]) => value !== undefined));
    set(Object.keys(said).length ? said : undefined);
  };
  const shown = part?.unsent
    ? 'unsent'
    : part?.drifted
      ? 'drifted'
      : cause !== undefined
        ? `cause/${cause}`
        : (state ?? '');
  const reasons = (causes.data?.causes ?? []).filter((one) => account === undefined || one.accountId === account);
  const messages = [...new Set([...reasons.map((one) => one.message), ...(cause === undefined ? [] : [cause])])];
  return (
    <div className="col-span-2 grid grid-cols-4 gap-3">
      <label className="flex flex-col gap-1">
        Account
        <select
          // biome-ignore lint/a11y/noAutofocus: what opens takes the focus
          autoFocus
          className="select select-sm"
          value={account ?? ''}
          onChange={(event) =>
            change({ ...part, account: event.target.value === '' ? undefined : Number(event.target.value) })
          }
        >
          <option value="">Any</option>
          {accounts.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        State there
        <select
          className="select select-sm"
          value={shown}
          onChange={({ target: { value } }) => {
            const base: ListingPart = { account, liveForDays, netBelow };
            if (isMark(value)) change({ ...base, [value]: true });
            else if (value.startsWith('cause/')) change({ ...base, cause: value.slice('cause/'.length) });
            else change({ ...base, state: knotStates.find((one) => one === value) });
          }}
        >
          <option value="">Any</option>
          {knotStates.map((one) => (
            <option key={one} value={one}>
              {knotLabels[one]}
            </option>
          ))}
          {Object.entries(marks).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
          {messages.length ? (
            <optgroup label="Failed, because">
              {messages.map((message) => (
                <option key={message} value={`cause/${message}`}>
                  {message}
                </option>
              ))}
            </optgroup>
          ) : null}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        Not renewed for
        <span className="input input-sm w-full">
          <input
            type="number"
            min={1}
            max={36_500}
            aria-label="Not renewed for so many days"
            value={liveForDays ?? ''}
            onChange={(event) =>
              change({ ...part, liveForDays: event.target.value === '' ? undefined : Number(event.target.value) })
            }
          />
          <span className="quiet">days</span>
        </span>
      </label>
      <NetBox key={netBelow ?? ''} net={netBelow} set={(amount) => change({ ...part, netBelow: amount })} />
    </div>
  );
}

/** An amount that may be below zero, read when it is left. */
function NetBox({ net, set }: { net: number | undefined; set: (amount: number | undefined) => void }) {
  const [text, setText] = useState(net === undefined ? '' : amountToText(net, homeCurrency));
  const amount = text.trim() === '' ? undefined : parseAmount(text.replace('−', '-'), homeCurrency);
  return (
    <label className="flex flex-col gap-1">
      Net below
      <input
        className="input input-sm figures w-full"
        aria-invalid={amount === null ? true : undefined}
        inputMode="decimal"
        placeholder="5.00"
        title="What is left there of the price, in the account’s currency"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => amount !== null && amount !== net && set(amount)}
        onKeyDown={(event) => event.key === 'Enter' && amount !== null && amount !== net && set(amount)}
      />
    </label>
  );
}
