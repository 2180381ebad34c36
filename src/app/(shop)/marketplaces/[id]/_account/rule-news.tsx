'use client';

import { useQuery } from '@tanstack/react-query';
import type { RuleChange } from '@/core/rules/compare';
import type { AccountView } from '@/services/accounts/find-accounts';
import { Link } from '@/ui/controls/link';
import { Failed, Loading } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { ViolationRow } from '@/ui/data/violation-row';

/** What changed in the rules, and the listings that do not fit them, by cause, each with its mend. */
export function RuleNews({ account, changed }: { account: AccountView; changed: () => void }) {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['rules', account.market],
    queryFn: () => api('GET /rules', { query: { market: account.market } }),
    refetchInterval: 8_000,
  });
  if (isPending) return <Loading what="the rules" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const violations = data.violations.filter((one) => one.accountId === account.id);
  const live = violations.reduce((sum, one) => sum + one.live, 0);
  const newest = data.versions[0];
  return (
    <section aria-labelledby="rules" className="p-4">
      <h2 id="rules" className="font-semibold">
        Rules
      </h2>
      <p className="quiet mb-2">
        Version {data.to ?? '–'}
        {newest ? (
          <>
            , read <When at={newest.readAt} />
          </>
        ) : null}
        {account.renewDays ? `; renewed every ${account.renewDays} days` : ''}
        {account.titleMax ? `; titles to ${account.titleMax} characters` : ''}
      </p>
      {data.changes.length ? (
        <div className="mb-4 rounded border border-base-300">
          <h3 className="border-b border-base-300 bg-base-200 px-3 py-1.5">
            Changed from version {data.from} to {data.to}
          </h3>
          <ul className="divide-y divide-base-300/60">
            {data.changes.slice(0, 30).map((change) => (
              <li key={change.path} className="grid grid-cols-[12rem_1fr] gap-3 px-3 py-1.5">
                <span>{change.path}</span>
                <Difference change={change} />
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <h3 className="mb-1">
        {violations.length
          ? `${live} live and ${violations.reduce((sum, one) => sum + one.drafts, 0)} waiting listings do not fit`
          : 'Every listing fits these rules'}
      </h3>
      <ul className="divide-y divide-base-300/60">
        {violations.map((violation) => (
          <ViolationRow
            key={`${violation.code}/${violation.field}/${violation.message}`}
            violation={violation}
            changed={changed}
          />
        ))}
      </ul>
      {violations.length ? (
        <p className="quiet mt-2">
          Numbers are listings of {account.name}. A mend is carried out for all of them; what was typed elsewhere stays.{' '}
          <Link className="underline" href="/attention">
            What failed already
          </Link>
        </p>
      ) : null}
    </section>
  );
}

const short = (value: unknown): string => {
  if (value === null || value === undefined) return 'nothing';
  if (Array.isArray(value)) return `${value.length} entries`;
  return typeof value === 'object' ? JSON.stringify(value) : String(value);
};

/** Only what differs inside a part of the rules, value by value. */
function Difference({ change }: { change: RuleChange }) {
  const { from, to } = change;
  if (Array.isArray(from) && Array.isArray(to)) {
    const key = (one: unknown) => JSON.stringify(one);
    const gone = from.filter((one) => !to.some((other) => key(other) === key(one)));
    const come = to.filter((one) => !from.some((other) => key(other) === key(one)));
    const name = (one: unknown) =>
      typeof one === 'object' && one !== null && 'label' in one
        ? `${String(one.label)}${'required' in one && one.required === true ? ' (needed)' : ''}`
        : key(one).slice(0, 60);
    return (
      <span>
        {gone.length ? <del className="quiet">{gone.slice(0, 6).map(name).join(', ')}</del> : null}
        {gone.length && come.length ? ' → ' : ''}
        {come.slice(0, 6).map(name).join(', ')}
      </span>
    );
  }
  if (typeof from === 'object' && typeof to === 'object' && from && to) {
    const before = from as Record<string, unknown>;
    const after = to as Record<string, unknown>;
    const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
      (key) => JSON.stringify(before[key]) !== JSON.stringify(after[key]),
    );
    return (
      <span>
        {keys.map((key) => (
          <span key={key} className="mr-3">
            {key}: <del className="quiet">{short(before[key])}</del> → {short(after[key])}
          </span>
        ))}
      </span>
    );
  }
  return (
    <span>
      <del className="quiet">{short(from)}</del> → {short(to)}
    </span>
  );
}
