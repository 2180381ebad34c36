'use client';

import { useState } from 'react';
import type { ExtraRule } from '@/core/rules/rules';
import type { AccountView } from '@/services/accounts/find-accounts';

type OwnField = { extra: ExtraRule; markets: string[]; choices: string[]; now: string };

const labelIn = (extra: ExtraRule, value: unknown): string => {
  if (value === null || value === undefined || value === '') return '';
  if (typeof value === 'boolean') return value ? 'Yes' : 'No';
  const one = (said: unknown) => extra.values?.find((choice) => choice.id === said)?.label ?? String(said);
  return Array.isArray(value) ? value.map(one).join(', ') : one(value);
};

/** The fields that these accounts' marketplaces have for themselves, each once, with what an item gets in it now. */
export function ownFieldsOf(accounts: readonly AccountView[]): OwnField[] {
  const found = new Map<string, OwnField>();
  for (const account of accounts)
    for (const extra of account.extras) {
      const said = labelIn(extra, account.defaults[extra.id] ?? extra.fallback);
      const now = said ? `${account.name}: ${said}` : '';
      const known = found.get(extra.id);
      if (!known)
        found.set(extra.id, {
          extra,
          markets: [account.marketName],
          choices: (extra.values ?? []).map((choice) => choice.label),
          now,
        });
      else {
        if (!known.markets.includes(account.marketName)) known.markets.push(account.marketName);
        known.choices = [...new Set([...known.choices, ...(extra.values ?? []).map((choice) => choice.label)])];
        known.now = [known.now, now].filter(Boolean).join('; ');
      }
    }
  return [...found.values()];
}

type Props = {
  accounts: AccountView[];
  fields: Record<string, string>;
  set: (field: string, text: string) => void;
  problemAt: (field: string) => string;
};

/** What a listing holds besides its texts: postage, returns, offers, handling; under the marketplaces that have it. */
export function OwnFields({ accounts, fields, set, problemAt }: Props) {
  const all = ownFieldsOf(accounts);
  const groups = [...new Set(all.map((one) => one.markets.join(', ')))];
  const filled = (group: string) =>
    all.filter((one) => one.markets.join(', ') === group && (fields[`extra.${one.extra.id}`] ?? '') !== '').length;
  // Open from the start where something is said; what is emptied does not fold up under the hand.
  const [first] = useState(() => new Set(groups.filter((group) => filled(group) > 0)));
  return (
    <div>
      <h3 className="mb-1">Besides the texts</h3>
      {groups.map((group) => (
        <details key={group} className="border-t border-base-300" open={first.has(group) || groups.length === 1}>
          <summary className="cursor-pointer py-1">
            {group}{' '}
            <span className="quiet">
              {all.filter((one) => one.markets.join(', ') === group).length} fields
              {filled(group) ? `, ${filled(group)} said here` : ''}
            </span>
          </summary>
          <div className="grid grid-cols-2 gap-x-4 gap-y-2 pb-2">
            {all
              .filter((one) => one.markets.join(', ') === group)
              .map(({ extra, choices, now }) => {
                const field = `extra.${extra.id}`;
                const value = fields[field] ?? '';
                const options = extra.type === 'boolean' ? ['Yes', 'No'] : extra.type === 'choice' ? choices : null;
                const empty = now ? `now ${now}` : 'now what the item says, or nothing';
                return (
                  <label key={extra.id} htmlFor={`own-${extra.id}`} className="flex flex-col gap-0.5 text-[12px]">
                    {extra.label}
                    {options ? (
                      <select
                        id={`own-${extra.id}`}
                        className="select select-sm w-full pe-8 text-ellipsis"
                        value={value}
                        onChange={(event) => set(field, event.target.value)}
                      >
                        <option value="">{empty}</option>
                        {[...new Set([...options, ...(value ? [value] : [])])].map((one) => (
                          <option key={one} value={one}>
                            {one}
                          </option>
                        ))}
                      </select>
                    ) : (
                      <input
                        id={`own-${extra.id}`}
                        className="input input-sm w-full"
                        value={value}
                        placeholder={empty}
                        onChange={(event) => set(field, event.target.value)}
                      />
                    )}
                    {problemAt(field) ? <span className="text-error">{problemAt(field)}</span> : null}
                  </label>
                );
              })}
          </div>
        </details>
      ))}
    </div>
  );
}
