import type { AccountConsequence, EditConsequences } from '@/services/changes/preview/consequences';
import { duration, Price } from '@/ui/controls/format';
import { counted } from '@/ui/data/counted';

/** What is not sent though the rest is: accounts, and fields of listings. */
export type HeldBack = { accounts: readonly number[]; fields: readonly string[] };
export const nothingHeldBack: HeldBack = { accounts: [], fields: [] };

type Holding = { held: HeldBack; hold: (held: HeldBack) => void };
const toggled = <T,>(list: readonly T[], one: T): T[] =>
  list.includes(one) ? list.filter((other) => other !== one) : [...list, one];

/** What the change comes to: items, and each account's listings; what is unticked is saved and not sent. */
export function Consequences({ counts, ...holding }: { counts: EditConsequences } & Holding) {
  const { items, total, changed, unchanged, isWhole } = counts;
  return (
    <div className="space-y-3">
      <p className="figures">
        <b className="font-semibold">{changed.toLocaleString('en')}</b> of {items.toLocaleString('en')} items change
        {unchanged ? <span className="quiet">, {unchanged.toLocaleString('en')} stay as they are</span> : null}
      </p>
      {isWhole ? null : (
        <label className="quiet figures block">
          {items.toLocaleString('en')} of {total.toLocaleString('en')} counted
          <progress className="progress w-full" value={items} max={Math.max(1, total)} />
        </label>
      )}
      {counts.refused.map((one) => (
        <p key={one.why} className="text-warning">
          {one.count.toLocaleString('en')}: {one.why}
        </p>
      ))}
      {counts.accounts
        .filter((account) => account.changes > 0 || account.keepOverride > 0)
        .map((account) => (
          <Account key={account.accountId} account={account} {...holding} />
        ))}
    </div>
  );
}

function Account({ account, held, hold }: { account: AccountConsequence } & Holding) {
  const { changes, fields, currency, belowZero, blocked, breaks } = account;
  return (
    <section aria-label={account.name} className="border-t border-base-300 pt-2">
      <h3 className="font-medium">
        <label className="flex items-center gap-1.5" title="Without the tick it is saved, and not sent there">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            aria-label={`Send to ${account.name}`}
            checked={!held.accounts.includes(account.accountId)}
            onChange={() => hold({ ...held, accounts: toggled(held.accounts, account.accountId) })}
          />
          {account.name}
        </label>
      </h3>
      <p className="figures">
        {changes.toLocaleString('en')} live {changes === 1 ? 'listing changes' : 'listings change'}
        {account.seconds ? <span className="quiet">, sent in {duration(account.seconds)}</span> : null}
      </p>
      {fields.length ? (
        <ul className="flex flex-wrap gap-x-3">
          {fields.slice(0, 8).map((one) => (
            <li key={one.field}>
              <label
                className="quiet flex items-center gap-1"
                title="Without the tick it is saved, and not sent anywhere"
              >
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  aria-label={`Send ${one.label}`}
                  checked={!held.fields.includes(one.field)}
                  onChange={() => hold({ ...held, fields: toggled(held.fields, one.field) })}
                />
                {one.count === changes ? one.label : `${one.label} of ${one.count.toLocaleString('en')}`}
              </label>
            </li>
          ))}
          {fields.length > 8 ? <li className="quiet">and {fields.length - 8} more</li> : null}
        </ul>
      ) : null}
      <p className="figures">
        Fees <Price amount={account.feesBefore} currency={currency} /> →{' '}
        <Price amount={account.feesAfter} currency={currency} />
      </p>
      <p className="figures">
        Net <Price amount={account.netBefore} currency={currency} /> →{' '}
        <Price amount={account.netAfter} currency={currency} />
      </p>
      {account.keepOverride ? (
        <p className="quiet figures">{account.keepOverride.toLocaleString('en')} keep their own price</p>
      ) : null}
      {belowZero ? <p className="text-warning figures">{belowZero.toLocaleString('en')} would sell at a loss</p> : null}
      {blocked ? (
        <p className="text-error figures">
          {counted(blocked, 'listing')} would not be taken any more as {blocked === 1 ? 'it becomes' : 'they become'}:
        </p>
      ) : null}
      <ul>
        {breaks.map((one) => (
          <li key={one.message} className="text-error">
            <span className="figures">{one.count.toLocaleString('en')}</span>: {one.message}
            <span className="quiet block">{one.fix}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What of the change is sent, as the server takes it; undefined when nothing is held back, null when nothing would go. */
export function sendPart(counts: EditConsequences, { accounts, fields }: HeldBack) {
  if (accounts.length === 0 && fields.length === 0) return undefined;
  const changing = counts.accounts.filter((one) => one.changes > 0);
  const sentAccounts = changing.map((one) => one.accountId).filter((id) => !accounts.includes(id));
  const all = new Set(changing.flatMap((one) => one.fields.map(({ field }) => field)));
  const sentFields = [...all].filter((field) => !fields.includes(field));
  if (sentAccounts.length === 0 || sentFields.length === 0) return null;
  return {
    ...(accounts.length ? { accounts: sentAccounts } : {}),
    ...(fields.length ? { fields: sentFields } : {}),
  };
}
