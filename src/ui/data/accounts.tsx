'use client';

import { useQuery } from '@tanstack/react-query';
import type { AccountView } from '@/services/accounts/find-accounts';
import { api } from './api';

/** The connected accounts, and a way to find one by its number. */
export function useAccounts(): { accounts: AccountView[]; accountOf: (id: number | null) => AccountView | undefined } {
  const { data } = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const accounts = data?.accounts ?? [];
  return { accounts, accountOf: (id) => accounts.find((one) => one.id === id) };
}

/** One account, or all of them. */
export function AccountSelect({
  value,
  choose,
  all = 'Every account',
}: {
  value: number | null;
  choose: (id: number | null) => void;
  all?: string;
}) {
  const { accounts } = useAccounts();
  return (
    <select
      aria-label="Account"
      className="select select-sm w-48"
      value={value ?? ''}
      onChange={(event) => choose(Number(event.target.value) || null)}
    >
      <option value="">{all}</option>
      {accounts.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
}
