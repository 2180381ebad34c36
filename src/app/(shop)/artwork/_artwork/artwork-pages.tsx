'use client';

import { usePathname } from 'next/navigation';
import { Link } from '@/ui/controls/link';
import { Shades } from './drawings';

const pages = [
  ['/artwork', 'Pictures'],
  ['/artwork/gallery', 'On products'],
  ['/artwork/earnings', 'What earns'],
] as const;

/** The pages about artwork, of which one is open. */
export function ArtworkPages() {
  const path = usePathname();
  return (
    <nav aria-label="Artwork" className="flex gap-1">
      <Shades />
      {pages.map(([href, words]) => (
        <Link
          key={href}
          href={href}
          aria-current={path === href ? 'page' : undefined}
          className={`btn btn-xs ${path === href ? 'bg-base-300' : 'btn-ghost'}`}
        >
          {words}
        </Link>
      ))}
    </nav>
  );
}
