import { findLinks } from '@/services/listings/links/find-links';
import { FirstData, isPlain, type SearchParams } from '../first-data';
import { Links } from './_links/links';

export const metadata = { title: 'Links' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  // What an address narrows down is read by the page itself.
  const lists = (await isPlain(searchParams))
    ? [{ key: ['links', {}], read: () => findLinks({ limit: 100 }), from: 0 }]
    : [];
  return (
    <FirstData lists={lists}>
      <Links />
    </FirstData>
  );
}
