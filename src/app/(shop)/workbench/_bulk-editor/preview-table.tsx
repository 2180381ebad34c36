import type { AccountView } from '@/services/accounts/find-accounts';
import type { PreviewRow, ShownChange } from '@/services/changes/preview/preview-rows';
import type { Shot } from '@/services/changes/preview/preview-shots';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { WordDiff } from '@/ui/controls/word-diff';
import { counted } from '@/ui/data/counted';
import { shotUrl } from '@/ui/photos/addresses';

type Shown = { column: string; label: string; accountId: number | null; isNumber: boolean };

/** The fields that become different in some row, each once. */
function columnsOf(rows: PreviewRow[]): Shown[] {
  const found = new Map<string, Shown>();
  for (const row of rows)
    for (const { column, label, accountId, isNumber } of row.changes)
      if (!found.has(column)) found.set(column, { column, label, accountId, isNumber });
  return [...found.values()];
}

/** Old and new side by side, with what is left on each account where that becomes another. */
export function PreviewTable({
  rows,
  accounts,
  left,
  leave,
}: {
  rows: PreviewRow[];
  accounts: AccountView[];
  /** Items that stay as they are, whatever the steps say. */
  left: ReadonlySet<number>;
  leave: (ids: ReadonlySet<number>) => void;
}) {
  const changing = columnsOf(rows);
  const nameOf = (id: number | null) => accounts.find((account) => account.id === id)?.name;
  const netsOf = accounts.filter((account) =>
    rows.some((row) =>
      row.nets.some((net) => net.accountId === account.id && (net.before !== net.after || net.keepsOverride)),
    ),
  );
  const columns: Column<PreviewRow>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-64',
      cell: (row) => (
        <ItemCell
          {...row}
          below={
            row.refused ? (
              <span className="text-warning">{row.refused}</span>
            ) : row.breaks.length ? (
              <span className="text-error">{row.breaks.join('. ')}</span>
            ) : (
              row.sku
            )
          }
        />
      ),
    },
    ...changing.map(
      ({ column, label, accountId, isNumber }): Column<PreviewRow> => ({
        id: column,
        head: accountId === null ? label : `${label}, ${nameOf(accountId) ?? 'account'}`,
        ...(isNumber ? { align: 'right' as const, cellClass: 'whitespace-nowrap' } : { className: 'min-w-64' }),
        cell: (row) => (
          <>
            {row.changes
              .filter((change) => change.column === column)
              .map((change) => (
                <Change key={change.combination ?? ''} change={change} />
              ))}
          </>
        ),
      }),
    ),
    ...netsOf.map(
      (account): Column<PreviewRow> => ({
        id: `net-${account.id}`,
        head: `Net ${account.name}`,
        align: 'right',
        cellClass: 'whitespace-nowrap',
        cell: (row) => {
          const net = row.nets.find((one) => one.accountId === account.id);
          if (!net) return null;
          return (
            <>
              <Price amount={net.after} currency={account.currency} tone />
              {net.keepsOverride ? <span className="quiet block text-[11px]">keeps its own price</span> : null}
            </>
          );
        },
      }),
    ),
  ];
  return (
    <DataTable
      rows={rows}
      columns={columns}
      idOf={(row) => row.id}
      sticky
      choice={{
        chosen: rows.flatMap((row) => (left.has(row.id) ? [] : [row.id])),
        choose: (ids) => {
          const taken = new Set(ids);
          const elsewhere = [...left].filter((id) => !rows.some((row) => row.id === id));
          leave(new Set([...elsewhere, ...rows.flatMap((row) => (taken.has(row.id) ? [] : [row.id]))]));
        },
        label: (row) => `Change ${row.sku}`,
      }}
      rowClass={(row) => (row.changes.length && !left.has(row.id) ? '' : 'quiet')}
    />
  );
}

function Shots({ shots }: { shots: Shot[] }) {
  return (
    <span className="flex flex-wrap gap-0.5" role="img" aria-label={counted(shots.length, 'photo')}>
      {shots.slice(0, 10).map((shot, at) => (
        <img key={`${shot.hash}-${at}`} src={shotUrl(shot, 96)} alt="" loading="lazy" className="h-8 rounded" />
      ))}
    </span>
  );
}

function Change({ change: { before, after, combination, isNumber, note, shots } }: { change: ShownChange }) {
  return (
    <div>
      {combination ? <span className="quiet mr-2">{combination}</span> : null}
      {shots ? (
        <Shots shots={shots.after} />
      ) : isNumber ? (
        <>
          <span className="quiet figures mr-2 line-through">{before}</span>
          <b className="figures font-semibold">{after || 'none'}</b>
        </>
      ) : (
        <WordDiff before={before} after={after} />
      )}
      {note ? <span className="quiet figures block text-[11px]">{note}</span> : null}
    </div>
  );
}
