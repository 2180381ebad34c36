import { findDrift } from '@/services/sync/find-drift';
import { findGone } from '@/services/sync/find-gone';
import { FirstData, isPlain, type SearchParams } from '../first-data';
import { DriftPage } from './_drift/drift';

export const metadata = { title: 'Differences' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  // What an address narrows down is read by the page itself.
  const lists = (await isPlain(searchParams))
    ? [
        { key: ['drift', null], read: () => findDrift({ limit: 100 }), from: 0 },
        { key: ['gone'], read: () => findGone() },
      ]
    : [];
  return (
    <FirstData lists={lists}>
      <DriftPage />
    </FirstData>
  );
}
