import { useState } from 'react';
import type { DropView } from '@/services/photos/find-drop';
import { Link } from '@/ui/controls/link';
import { Empty } from '@/ui/controls/states';
import { photoUrl } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { FileTile } from './file-tile';
import type { Moving } from './use-moving';

type Props = { drop: DropView; moving: Moving; more: () => void };

/** Items with the files that are tied to them, in their order; others are dragged there. */
export function Groups({ drop, moving, more }: Props) {
  const [over, setOver] = useState<number | null>(null);
  const put = (item: number, before: number | null = null) => {
    void moving.move.run(moving.dragged, { kind: 'item', item, before });
    moving.end();
    setOver(null);
  };
  if (drop.groups.length === 0)
    return (
      <Empty title={drop.counts.added ? 'All that was tied is added' : 'Nothing is tied to an item yet'}>
        <p>
          {drop.counts.untied
            ? 'Try another way above, or choose files on the right and say which item they show.'
            : 'Drop a folder here, or go back to all photos.'}
        </p>
      </Empty>
    );
  return (
    <section aria-label="Tied" className="overflow-auto" tabIndex={0}>
      <ul>
        {drop.groups.map((group) => (
          <li
            key={group.itemId}
            aria-label={`${group.sku}: ${counted(group.files.length, 'file')}`}
            className={`flex gap-3 border-b border-base-300 px-4 py-1.5 [contain-intrinsic-size:auto_6.6rem] [content-visibility:auto] ${over === group.itemId ? 'bg-base-200' : ''}`}
            onDragOver={(event) => {
              if (moving.dragged.length === 0) return;
              event.preventDefault();
              setOver(group.itemId);
            }}
            onDragLeave={() => setOver(null)}
            onDrop={(event) => {
              if (moving.dragged.length === 0) return;
              event.preventDefault();
              put(group.itemId);
            }}
          >
            <div className="w-52 shrink-0">
              <div className="flex items-center gap-2">
                {group.photo ? (
                  <img
                    src={photoUrl(group.photo, 'thumb')}
                    alt=""
                    loading="lazy"
                    className="h-9 w-9 rounded object-cover"
                  />
                ) : null}
                <Link className="mono text-[12px] underline" href={`/items/${group.itemId}`}>
                  {group.sku}
                </Link>
              </div>
              <p className="truncate text-[12px]" title={group.title}>
                {group.title || 'Without a title'}
              </p>
              <p className="quiet text-[12px]">
                has {group.photoCount}, gets {group.files.length}
              </p>
            </div>
            <div className="flex flex-wrap gap-1">
              {group.files.map((file, at) => (
                <FileTile
                  key={file.id}
                  file={file}
                  moving={moving}
                  onDropBefore={() => put(group.itemId, file.id)}
                  onArrow={(by) => {
                    const before = by < 0 ? group.files[at - 1] : group.files[at + 2];
                    if (at + by < 0 || at + by >= group.files.length) return;
                    void moving.move.run([file.id], { kind: 'item', item: group.itemId, before: before?.id ?? null });
                  }}
                />
              ))}
            </div>
          </li>
        ))}
      </ul>
      {drop.moreItems ? (
        <button type="button" className="btn btn-sm m-3" onClick={more}>
          Show more, {counted(drop.moreItems, 'item')} left
        </button>
      ) : null}
    </section>
  );
}
