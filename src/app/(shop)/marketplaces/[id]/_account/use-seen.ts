import { useRef } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import { ApiProblem, api, type RequestOf } from '@/ui/data/api';
import { sentenceWithFix } from '@/ui/data/sentence';

type Name = 'footer' | 'houseTag' | 'language' | 'pricing' | 'packaging' | 'maps' | 'belongs';
type Body = NonNullable<RequestOf<'PATCH /accounts/{id}'>['body']>;
type Part = Partial<Pick<Body, Name>>;

/**
 * Saves a part of an account that is written on as it was seen when the page came up: what somebody else changed
 * meanwhile is said first, and only what is saved once more takes its place.
 * @returns saves, and hands out what was there before
 */
export function useSeen(account: AccountView, names: readonly Name[]): (part: Part) => Promise<Part> {
  const seen = useRef<Part | null>(Object.fromEntries(names.map((name) => [name, account[name]])));
  return async (part) => {
    const before: Part = Object.fromEntries(names.filter((name) => name in part).map((name) => [name, account[name]]));
    try {
      const body: Body = { ...part };
      if (seen.current) body.seen = seen.current as NonNullable<Body['seen']>; // JSON, as the server told it
      await api('PATCH /accounts/{id}', { params: { id: account.id }, body });
      seen.current = part;
      return before;
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.code !== 'conflict') throw error;
      seen.current = null;
      throw new Error(sentenceWithFix(error));
    }
  };
}
