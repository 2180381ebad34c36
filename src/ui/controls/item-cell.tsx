import type { ReactNode } from 'react';
import { photoUrl } from '../data/api';
import { Link } from './link';

type Props = {
  photo: string | null;
  title: string;
  sku: string;
  /** Where a click on the title leads; a title alone when left out. */
  href?: string;
  /** Stands where there is no photo; its place is kept when left out. */
  instead?: ReactNode;
  /** Below the title: the stock number, or what has to be said instead; nothing when null. */
  below?: ReactNode;
  /** After the title in the same line. */
  children?: ReactNode;
};

/** The small picture of an item, in the same place everywhere. */
export const Thumbnail = ({ photo, instead }: { photo: string | null; instead?: ReactNode }) =>
  photo ? (
    <img
      // Another photo is another picture: the old one does not stand there until it has come.
      key={photo}
      src={photoUrl(photo, 'thumb')}
      alt=""
      width={28}
      height={28}
      className="h-7 w-7 shrink-0 rounded-sm object-cover"
      loading="lazy"
    />
  ) : (
    <span className="flex h-7 w-7 shrink-0 items-center justify-center">{instead}</span>
  );

/** An item as every list shows it: thumbnail, title, stock number. */
export function ItemCell({ photo, title, sku, href, instead, below = null, children }: Props) {
  const name = title || sku || 'Untitled';
  return (
    <span className="flex min-w-0 items-center gap-2">
      <Thumbnail photo={photo} instead={instead} />
      <span className="min-w-0">
        {href ? (
          <Link className="block truncate hover:underline" href={href}>
            {name}
          </Link>
        ) : (
          <span className="block truncate">{name}</span>
        )}
        {below === null ? null : <span className="mono quiet block text-[11px]">{below}</span>}
      </span>
      {children}
    </span>
  );
}
