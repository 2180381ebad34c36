import type { AccountView } from '@/services/accounts/find-accounts';

/** What the middle shows: what the items have in common, the items themselves, or what one account will get. */
export type View = 'common' | 'item' | number;

export function Views({
  view,
  choose,
  accounts,
  isComplete,
}: {
  view: View;
  choose: (view: View) => void;
  /** Accounts whose listings change. */
  accounts: AccountView[];
  isComplete: boolean;
}) {
  const all: { id: View; label: string; hint: string }[] = [
    { id: 'common', label: 'In common', hint: 'What the chosen items have in common' },
    ...(isComplete ? [{ id: 'item' as const, label: 'Item', hint: 'The items before and after' }] : []),
    ...accounts.map((one) => ({ id: one.id, label: one.name, hint: `As ${one.name} will get it` })),
  ];
  return (
    <div
      role="group"
      aria-label="Seen as"
      className="sticky left-0 flex flex-wrap items-center gap-1 border-b border-base-300 px-2 py-1"
    >
      {all.map(({ id, label, hint }) => (
        <button
          key={id}
          type="button"
          aria-pressed={view === id}
          title={hint}
          className={`btn btn-xs ${view === id ? 'btn-active' : 'btn-ghost'}`}
          onClick={() => choose(id)}
        >
          {label}
        </button>
      ))}
    </div>
  );
}
