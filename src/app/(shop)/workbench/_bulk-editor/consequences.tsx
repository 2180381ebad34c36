import type { AccountConsequence, EditConsequences } from '@/services/changes/consequences';
import { duration, Price } from '@/ui/controls/format';
import { counted } from '@/ui/data/counted';

/** What the change comes to: items, and each account's listings. */
export function Consequences({ counts }: { counts: EditConsequences }) {
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
          <Account key={account.accountId} account={account} />
        ))}
    </div>
  );
}

function Account({ account }: { account: AccountConsequence }) {
  const { changes, fields, currency, belowZero, blocked, breaks } = account;
  return (
    <section aria-label={account.name} className="border-t border-base-300 pt-2">
      <h3 className="font-medium">{account.name}</h3>
      <p className="figures">
        {changes.toLocaleString('en')} live {changes === 1 ? 'listing changes' : 'listings change'}
        {account.seconds ? <span className="quiet">, sent in {duration(account.seconds)}</span> : null}
      </p>
      {fields.length ? (
        <p className="quiet">
          {fields
            .slice(0, 6)
            .map((one) => (one.count === changes ? one.label : `${one.label} of ${one.count.toLocaleString('en')}`))
            .join(', ')}
          {fields.length > 6 ? ` and ${fields.length - 6} more` : ''}
        </p>
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
