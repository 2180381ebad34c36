import { findJobs } from '@/services/outbox/find-jobs';
import { findRuns } from '@/services/outbox/find-runs';
import { FirstData, isPlain, type SearchParams } from '../first-data';
import { Outbox } from './outbox';

export const metadata = { title: 'Outbox' };

export default async function OutboxPage({ searchParams }: { searchParams: SearchParams }) {
  // What an address narrows down is read by the page itself.
  const lists = (await isPlain(searchParams))
    ? [
        { key: ['runs'], read: () => findRuns({ limit: 30 }), from: 0 },
        { key: ['jobs', {}], read: () => findJobs({ limit: 100 }), from: 0 },
      ]
    : [];
  return (
    <FirstData lists={lists}>
      <Outbox />
    </FirstData>
  );
}
