import type { AccountView } from '@/services/accounts/find-accounts';
import type { PlannedKnot } from '@/services/listings/plan-portions';
import type { PublishPlan } from '@/services/listings/plan-publish';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { fieldName } from '@/ui/controls/shown-value';

const nameOf = (field: string) => fieldName(field).toLowerCase();

type PlannedItem = PublishPlan['items'][number];

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
  const columns: Column<PlannedItem>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-80',
      cell: (item) => <ItemCell {...item} href={`/items/${item.id}`} />,
    },
    ...accounts.map(
      (account): Column<PlannedItem> => ({
        id: String(account.id),
        head: account.name,
        className: 'max-w-60 border-l border-base-300/60 align-top first:border-l-0',
        cell: (item) => {
          const knot = byKey.get(`${item.id}/${account.id}`);
          if (!knot) return <span className="quiet">left out</span>;
          const name = `${item.sku} on ${account.name}`;
          return <Planned knot={knot} currency={account.currency} leaveOut={() => leaveOut(knot)} name={name} />;
        },
      }),
    ),
  ];
  return (
    <section aria-label="Plan" className="overflow-x-auto" tabIndex={0}>
      <DataTable rows={plan.items} columns={columns} idOf={(item) => item.id} />
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
