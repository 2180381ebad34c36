import { findRenewals } from '@/services/listings/renewal/find-renewals';
import { FirstData, isPlain, type SearchParams } from '../first-data';
import { RenewalsPage } from './_renewals/renewals';

export const metadata = { title: 'Renewal' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  // What an address narrows down is read by the page itself.
  const lists = (await isPlain(searchParams))
    ? [
        {
          key: ['renewals', { order: 'due', minDays: 0 }],
          from: 0,
          read: () => findRenewals({ order: 'due', minDays: 0, limit: 200, from: 0 }),
        },
      ]
    : [];
  return (
    <FirstData lists={lists}>
      <RenewalsPage />
    </FirstData>
  );
}
