import { notFound } from 'next/navigation';
import { findGathering } from '@/services/gathering/find-gathering';
import { FirstData } from '../../first-data';
import { Gathering } from './_gathering/gathering';

export const metadata = { title: 'Bringing in' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return (
    <FirstData lists={[{ key: ['gatherings', id], read: () => findGathering(id) }]}>
      <Gathering id={id} key={id} />
    </FirstData>
  );
}
