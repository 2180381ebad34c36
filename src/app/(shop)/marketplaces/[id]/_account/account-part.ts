import type { AccountView } from '@/services/accounts/find-accounts';

/** A part of an account's page that is written on. */
export type AccountPart = {
  account: AccountView;
  /** Something else may be to be seen now. */
  changed: () => void;
  /** It was taken back: what was typed gives way to what is kept again. */
  again: () => Promise<unknown>;
};
