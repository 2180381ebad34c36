import type { GatheringView } from '@/services/gathering/find-gathering';
import { DataTable } from '@/ui/controls/data-table';
import { ItemCell } from '@/ui/controls/item-cell';

type Brought = GatheringView['items'][number];

const names: Record<string, string> = {
  title: 'title',
  description: 'description',
  photos: 'photos',
  price: 'price',
  attributes: 'attributes',
  condition: 'condition',
  keywords: 'keywords',
};

/** What was taken from whom, where several said something. */
function takenFrom({ taken, accounts, isNew }: Brought): string {
  if (accounts.length < 2 || !isNew) return '';
  const from = new Map<string, string[]>();
  for (const [field, name] of Object.entries(names)) {
    const source = taken[field];
    if (source) from.set(source, [...(from.get(source) ?? []), name]);
  }
  return [...from].map(([source, fields]) => `${fields.join(', ')} from ${source}`).join('; ');
}

/** The items that came of it, and what could not be brought in. */
export function BroughtIn({ view }: { view: GatheringView }) {
  return (
    <section aria-label="Brought in" className="min-h-0 overflow-auto">
      {view.faults.length ? (
        <div className="border-b border-base-300 px-4 py-2">
          <h2 className="font-semibold">Not brought in, or not whole: {view.faults.length}</h2>
          <ul>
            {view.faults.map((one) => (
              <li key={one.url} className="py-0.5">
                <a className="link" href={one.url} target="_blank" rel="noreferrer">
                  {one.title || one.url}
                </a>{' '}
                <span className="text-warning">{one.said}</span>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      {view.items.length ? (
        <DataTable
          rows={view.items}
          idOf={(one) => one.itemId}
          sticky
          fixed
          columns={[
            {
              id: 'item',
              head: 'Item',
              names: true,
              cell: (one) => <ItemCell {...one} href={`/items/${one.itemId}`} below={one.sku} />,
            },
            {
              id: 'where',
              head: 'Linked with',
              className: 'w-72',
              cell: (one) => (
                <>
                  {one.accounts.join(', ')}
                  {one.isNew ? null : <span className="quiet"> – it was here already</span>}
                  <span className="quiet block truncate text-[11px]" title={one.said ?? takenFrom(one)}>
                    {one.said ?? takenFrom(one)}
                  </span>
                </>
              ),
            },
            { id: 'quantity', head: 'Units', align: 'right', className: 'w-20', cell: (one) => one.quantity },
          ]}
        />
      ) : (
        <p className="quiet px-4 py-3">
          {view.state === 'working'
            ? 'Photos come first; then each listing becomes an item and stands here.'
            : 'Nothing is in yet. What is decided is brought in by the button on the left.'}
        </p>
      )}
      {view.made + view.joined > view.items.length ? (
        <p className="quiet px-4 py-2">
          The first {view.items.length} of {(view.made + view.joined).toLocaleString('en')}.
        </p>
      ) : null}
    </section>
  );
}
