'use client';

import { originLabels } from '@/core/listing/fields';
import type { AccountPreview, PreviewValue } from '@/services/items/preview-item';
import { DataTable } from '@/ui/controls/data-table';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** Every field of one listing: the value, where it comes from, what it lost, what is wrong with it. */
export function Values({ itemId, account, changed }: { itemId: number; account: AccountPreview; changed: () => void }) {
  const used = account.values.filter((value) => value.origin !== 'unused');
  const unused = account.values.filter((value) => value.origin === 'unused').map((value) => value.label);
  return (
    <section aria-label={`What ${account.name} gets`} className="min-w-0 p-3">
      {account.refusal ? (
        <p role="alert" className="mb-2 rounded border border-warning px-3 py-2">
          Refused in review: {account.refusal}
        </p>
      ) : null}
      {account.template ? (
        <p className="quiet mb-2">
          Template “
          <Link className="underline" href={`/templates?template=${account.template.id}`}>
            {account.template.name}
          </Link>
          ”
          {account.template.tiedWith.length
            ? `; ${account.template.tiedWith.join(', ')} would fit as well, the older one was taken`
            : ''}
        </p>
      ) : null}
      <DataTable
        look="part"
        fixed
        rows={used}
        idOf={(value) => value.field}
        rowClass={() => 'align-top'}
        columns={[
          { id: 'field', head: 'Field', names: true, className: 'w-36', cell: (value) => value.label },
          {
            id: 'gets',
            head: `What ${account.name} gets`,
            cell: (value) => <Gets value={value} itemId={itemId} account={account} changed={changed} />,
          },
          {
            id: 'origin',
            head: 'From where',
            className: 'w-52',
            cellClass: 'quiet',
            cell: (value) => <Origin value={value} />,
          },
        ]}
      />
      {unused.length ? <p className="quiet mt-2">Not used there: {unused.join(', ').toLowerCase()}.</p> : null}
    </section>
  );
}

type GetsProps = { value: PreviewValue; itemId: number; account: AccountPreview; changed: () => void };

function Gets({ value, itemId, account, changed }: GetsProps) {
  return (
    <>
      <div className="line-clamp-4 whitespace-pre-line wrap-anywhere">
        {value.shown.replace(/<[^>]*>/g, ' ') || <span className="quiet">nothing</span>}
      </div>
      {value.lost?.length ? <p className="quiet text-[12px]">Left out: {value.lost.join(', ')}</p> : null}
      {value.issues.map((issue) => (
        <p key={issue.code} className="text-[12px] text-warning">
          {issue.message}.{' '}
          <Link className="underline" href={`/items/${itemId}#row-${value.field}`}>
            {issue.fix.label}
          </Link>
        </p>
      ))}
      {value.field === 'title' && account.titles.length > 1 ? (
        <Versions itemId={itemId} account={account} present={value.shown} changed={changed} />
      ) : null}
    </>
  );
}

function Origin({ value }: { value: PreviewValue }) {
  return (
    <>
      {originLabels[value.origin]}
      {value.how ? `, ${value.how}` : ''}
      {value.max !== undefined && value.length !== undefined ? (
        <span className="figures block text-[12px]">
          {value.length} of {value.max}
        </span>
      ) : null}
    </>
  );
}

/** Other ways to say the title, each with what it loses; one click takes it for this marketplace. */
function Versions({
  itemId,
  account,
  present,
  changed,
}: {
  itemId: number;
  account: AccountPreview;
  present: string;
  changed: () => void;
}) {
  const others = account.titles.filter((one) => one.text !== present);
  const take = useCommand(
    async (text: string) => {
      await api('PUT /items/{id}/listings/{account}', {
        params: { id: itemId, account: account.accountId },
        body: { field: 'title', value: text },
      });
      changed();
      return `${account.name} has its own title now`;
    },
    { tells: true },
  );
  return (
    <ul className="mt-1 space-y-1 text-[12px]">
      {others.map((one) => (
        <li key={one.text} className="rounded bg-base-200 px-2 py-1">
          <button
            type="button"
            className="text-left underline decoration-dotted"
            onClick={() => void take.run(one.text)}
          >
            {one.text}
          </button>
          <span className="quiet block">
            {one.why}
            {one.lost.length ? `; without ${one.lost.slice(0, 6).join(', ')}` : ''}
          </span>
        </li>
      ))}
    </ul>
  );
}
