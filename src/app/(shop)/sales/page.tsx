import { findSales } from '@/services/stock/find-sales';
import { FirstData, isPlain, type SearchParams } from '../first-data';
import { Sales } from './sales';

export const metadata = { title: 'Sales' };

export default async function SalesPage({ searchParams }: { searchParams: SearchParams }) {
  // What an address narrows down is read by the page itself.
  const lists = (await isPlain(searchParams))
    ? [{ key: ['sales', {}], read: () => findSales({ limit: 100 }), from: 0 }]
    : [];
  return (
    <FirstData lists={lists}>
      <Sales />
    </FirstData>
  );
}
