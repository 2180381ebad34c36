import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';

/** The accounts that names, or their beginnings, mean: `oak, shop`. */
export function accountsNamed(text: string, accounts: readonly Pick<AccountView, 'id' | 'name'>[]): number[] {
  const named = text
    .toLowerCase()
    .split(/[,;]/)
    .map((one) => one.trim())
    .filter(Boolean)
    .flatMap((word) => {
      // A whole name means that one alone, though another one begins with it.
      const whole = accounts.filter(({ name }) => name.toLowerCase() === word);
      return whole.length ? whole : accounts.filter(({ name }) => name.toLowerCase().startsWith(word));
    });
  return accounts.filter((one) => named.includes(one)).map(({ id }) => id);
}

/** Which accounts a step is for: typed by their names, or ticked with the mouse. */
export function AccountChoice({
  number,
  accounts,
  chosen,
  choose,
}: {
  number: number;
  accounts: AccountView[];
  chosen: number[];
  choose: (ids: number[]) => void;
}) {
  const [text, setText] = useState(() =>
    accounts
      .filter((one) => chosen.includes(one.id))
      .map((one) => one.name)
      .join(', '),
  );
  return (
    <fieldset>
      <legend className="sr-only">Accounts of step {number}</legend>
      <input
        className="input input-sm mb-1 w-full"
        aria-label={`Names of the accounts of step ${number}`}
        placeholder="Names, or tick them below"
        value={text}
        onChange={({ target: { value } }) => {
          setText(value);
          choose(accountsNamed(value, accounts));
        }}
      />
      <div className="flex flex-wrap gap-x-3 gap-y-1">
        {accounts.map((account) => (
          <label key={account.id} className="flex items-center gap-1">
            <input
              type="checkbox"
              tabIndex={-1}
              className="checkbox checkbox-xs"
              checked={chosen.includes(account.id)}
              onChange={(event) => {
                const ids = event.target.checked ? [...chosen, account.id] : chosen.filter((id) => id !== account.id);
                choose(ids);
                setText(
                  accounts
                    .filter((one) => ids.includes(one.id))
                    .map((one) => one.name)
                    .join(', '),
                );
              }}
            />
            {account.name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
