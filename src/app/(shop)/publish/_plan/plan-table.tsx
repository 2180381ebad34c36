import Link from 'next/link';
import { fieldLabels } from '@/core/listing/fields';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { PlannedKnot } from '@/services/listings/plan-portions';
import type { PublishPlan } from '@/services/listings/plan-publish';
import { Price } from '@/ui/controls/format';
import { photoUrl } from '@/ui/data/api';

const nameOf = (field: string) =>
  (field in fieldLabels
    ? fieldLabels[field as keyof typeof fieldLabels]
    : field.replace(/^(attr|extra)\./, '')
  ).toLowerCase(); // tested just before

/** Per item and account: what will happen, and what will be left of it. */
export function PlanTable({
  plan,
  accounts,
  leaveOut,
}: {
  plan: PublishPlan;
  accounts: AccountView[];
  leaveOut: (knot: { itemId: number; accountId: number }) => void;
}) {
  const byKey = new Map(plan.knots.map((knot) => [`${knot.itemId}/${knot.accountId}`, knot]));
  return (
    <section aria-label="Plan" className="overflow-x-auto" tabIndex={0}>
      <table className="w-full">
        <thead className="bg-base-200 text-[12px]">
          <tr>
            <th scope="col" className="px-4 py-1.5 text-left font-medium">
              Item
            </th>
            {accounts.map((account) => (
              <th key={account.id} scope="col" className="px-2 py-1.5 text-left font-medium">
                {account.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {plan.items.map((item) => (
            <tr key={item.id} className="border-b border-base-300/60">
              <td className="max-w-80 px-4 py-1">
                <span className="flex items-center gap-2">
                  {item.photo ? (
                    <img
                      src={photoUrl(item.photo, 'thumb')}
                      alt=""
                      width={28}
                      height={28}
                      className="h-7 w-7 shrink-0 rounded-sm object-cover"
                    />
                  ) : null}
                  <Link href={`/items/${item.id}`} className="truncate hover:underline">
                    {item.title || item.sku}
                  </Link>
                </span>
              </td>
              {accounts.map((account) => {
                const knot = byKey.get(`${item.id}/${account.id}`);
                return (
                  <td key={account.id} className="max-w-60 border-l border-base-300/60 px-2 py-1 align-top">
                    {knot ? (
                      <Planned
                        knot={knot}
                        currency={account.currency}
                        leaveOut={() => leaveOut(knot)}
                        name={`${item.sku} on ${account.name}`}
                      />
                    ) : (
                      <span className="quiet">left out</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {plan.itemCount > plan.items.length ? (
        <p className="quiet px-4 py-2">
          The first {plan.items.length} of {plan.itemCount.toLocaleString('en')} items are shown; all are counted above.
        </p>
      ) : null}
    </section>
  );
}

function Planned({
  knot,
  currency,
  leaveOut,
  name,
}: {
  knot: PlannedKnot;
  currency: string;
  leaveOut: () => void;
  name: string;
}) {
  const text = {
    create: 'New listing',
    update: `Change ${knot.fields.map(nameOf).join(', ')}`,
    end: 'End',
    nothing: knot.why ?? 'Nothing to do',
    'not-ready': knot.issues
      .filter((issue) => issue.blocks)
      .map((issue) => issue.message)
      .join('. '),
  }[knot.action];
  const goes = knot.action === 'create' || knot.action === 'update';
  return (
    <span className="flex items-start gap-2">
      <span
        title={goes ? undefined : text}
        className={goes ? '' : `line-clamp-3 text-[12px] ${knot.action === 'not-ready' ? 'text-warning' : 'quiet'}`}
      >
        {text}
        {goes && knot.net !== null ? (
          <span className="quiet block text-[12px]">
            <Price amount={knot.price} currency={currency} />, net <Price amount={knot.net} currency={currency} tone />
          </span>
        ) : null}
      </span>
      {goes ? (
        <button type="button" className="quiet ml-auto px-1" aria-label={`Leave out ${name}`} onClick={leaveOut}>
          ×
        </button>
      ) : null}
    </span>
  );
}
