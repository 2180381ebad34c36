import { flawLabels, isByAccount, type PhotoFlaw, photoFlaws } from '@/core/photo/flaws';
import type { AccountView } from '@/services/accounts/find-accounts';

type Chosen = { flaw: PhotoFlaw; account: number | null };
type Props = {
  counts: { flaw: PhotoFlaw; accountId: number | null; items: number }[];
  accounts: AccountView[];
  chosen: Chosen;
  choose: (chosen: Chosen) => void;
};

/** What is wrong, each with the number of items; what accounts ask for, account by account. */
export function Causes({ counts, accounts, chosen, choose }: Props) {
  const row = (flaw: PhotoFlaw, account: number | null, label: string, items: number, isPart: boolean) => {
    const isChosen = chosen.flaw === flaw && chosen.account === account;
    return (
      <li key={`${flaw}/${account}`}>
        <button
          type="button"
          aria-pressed={isChosen}
          className={`flex w-full items-baseline gap-2 rounded px-2 py-0.5 text-left hover:bg-base-200 ${isPart ? 'pl-5 text-[12px]' : ''} ${isChosen ? 'bg-base-300 font-medium' : ''} ${items ? '' : 'quiet'}`}
          onClick={() => choose({ flaw, account })}
        >
          <span className="min-w-0 flex-1 truncate">{label}</span>
          <span className="figures">{items.toLocaleString('en')}</span>
        </button>
      </li>
    );
  };
  return (
    <ul className="space-y-0.5">
      {photoFlaws.map((flaw) => {
        const own = counts.filter((one) => one.flaw === flaw);
        if (!isByAccount(flaw)) return row(flaw, null, flawLabels[flaw], own[0]?.items ?? 0, false);
        return (
          <li key={flaw}>
            <p className="quiet px-2 pt-2 text-[12px]">{flawLabels[flaw]}</p>
            <ul>
              {accounts.flatMap((account) => {
                const found = own.find((one) => one.accountId === account.id);
                return found ? [row(flaw, account.id, account.name, found.items, true)] : [];
              })}
              {own.length === 0 ? <li className="quiet px-2 pl-5 text-[12px]">nowhere</li> : null}
            </ul>
          </li>
        );
      })}
    </ul>
  );
}
