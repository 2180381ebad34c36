import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { type DragEvent, useState } from 'react';
import { flawLabels, isByAccount, type PhotoFlaw } from '@/core/photo/flaws';
import type { AccountView } from '@/services/accounts/find-accounts';
import { AsFile } from '@/ui/controls/as-file';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading } from '@/ui/controls/states';
import { api, photoUrl } from '@/ui/data/api';
import { uploadAll } from '@/ui/data/upload';
import { droppedFiles } from '@/ui/photos/dropping';

type Props = { flaw: PhotoFlaw; account: number | null; accounts: AccountView[] };
type Flawed = { id: number; sku: string; title: string; photos: { hash: string; width: number; height: number }[] };

/** Items with one flaw; a file that is dropped on one of them is added to it. */
export function Wall({ flaw, account, accounts }: Props) {
  const wanted = isByAccount(flaw) ? (account ?? accounts[0]?.id) : undefined;
  const found = useInfiniteQuery({
    queryKey: ['photo-flawed', flaw, wanted],
    queryFn: ({ pageParam }) => api('GET /photos/flawed', { query: { flaw, account: wanted, after: pageParam } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  if (found.isError) return <Failed error={found.error} retry={() => void found.refetch()} />;
  if (!found.data) return <Loading what="the items" />;
  const items = found.data.pages.flatMap((page) => page.items);
  const name = accounts.find((one) => one.id === wanted)?.name;
  if (items.length === 0)
    return (
      <Empty title={`Nothing here: ${flawLabels[flaw].toLowerCase()}${name ? ` for ${name}` : ''}`}>
        <p>Choose another cause on the left, or drop a folder of new photos.</p>
      </Empty>
    );
  return (
    <section aria-label="Items" className="overflow-auto p-3" tabIndex={0}>
      <div className="mb-2 flex items-center gap-3">
        <h2 className="font-semibold">
          {flawLabels[flaw]}
          {name ? `, ${name}` : ''}
        </h2>
        <Link className="btn btn-xs" href={`/workbench?ids=${items.map((one) => one.id).join(',')}`}>
          Change these {items.length} on the workbench
        </Link>
        <AsFile of="GET /photos/flawed/file" what="These items" query={{ flaw, account: wanted }} />
      </div>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(14rem,1fr))] gap-2">
        {items.map((item) => (
          <Card key={item.id} item={item} />
        ))}
      </ul>
      {found.hasNextPage ? (
        <button
          type="button"
          className="btn btn-sm mt-3"
          disabled={found.isFetchingNextPage}
          onClick={() => void found.fetchNextPage()}
        >
          {found.isFetchingNextPage ? 'Being read …' : 'Show more'}
        </button>
      ) : null}
    </section>
  );
}

function Card({ item }: { item: Flawed }) {
  const client = useQueryClient();
  const [over, setOver] = useState(false);
  const [said, setSaid] = useState('');
  const add = async (files: File[]) => {
    const refused = await uploadAll(
      `/api/v1/items/${item.id}/photos`,
      files,
      (done) => setSaid(`Adding ${done + 1} of ${files.length} …`),
      () => false,
    );
    setSaid(refused.length ? refused.join(' ') : `${files.length} added`);
    await client.invalidateQueries({ queryKey: ['photo-flaws'] });
  };
  const onDrop = (event: DragEvent) => {
    if (!event.dataTransfer.types.includes('Files')) return;
    event.preventDefault();
    event.stopPropagation();
    setOver(false);
    void droppedFiles(event.dataTransfer).then((all) => add(all.map((one) => one.file)));
  };
  const [main] = item.photos;
  return (
    <li
      className={`rounded border p-2 ${over ? 'border-primary bg-base-200' : 'border-base-300'}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes('Files')) return;
        event.preventDefault();
        event.stopPropagation();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <div className="grid h-32 place-items-center overflow-hidden rounded bg-base-200">
        {main ? (
          <img
            src={photoUrl(main.hash, 'view')}
            alt=""
            loading="lazy"
            decoding="async"
            className="h-32 max-w-full object-contain"
          />
        ) : (
          <span className="quiet text-[12px]">Drop its photos here</span>
        )}
      </div>
      <div className="mt-1 flex items-baseline gap-2">
        <Link className="mono text-[12px] underline" href={`/items/${item.id}`}>
          {item.sku}
        </Link>
        <span className="quiet figures ml-auto text-[11px]">
          {item.photos.length} {item.photos.length === 1 ? 'photo' : 'photos'}
          {main ? `, ${main.width} × ${main.height}` : ''}
        </span>
      </div>
      <p className="truncate text-[12px]" title={item.title}>
        {item.title || 'Without a title'}
      </p>
      <div className="flex min-h-5 items-center gap-2 text-[12px]">
        <label className="cursor-pointer underline focus-within:outline-2">
          Add photos
          <input
            type="file"
            multiple
            accept="image/*,.heic,.heif"
            className="sr-only"
            aria-label={`Photos for ${item.sku}`}
            onChange={(event) => void add([...(event.target.files ?? [])])}
          />
        </label>
        {said ? <span role="status">{said}</span> : null}
      </div>
    </li>
  );
}
