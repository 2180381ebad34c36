import { notFound } from 'next/navigation';
import { NettingError } from '@/core/errors';
import { findGathering } from '@/services/gathering/find-gathering';
import { FirstData, whoAsks } from '../../first-data';
import { Gathering } from './_gathering/gathering';

export const metadata = { title: 'Bringing in' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  const missing =
    (await whoAsks()) !== null &&
    (await findGathering(id).then(
      () => false,
      (error: unknown) => error instanceof NettingError && error.code === 'not-found',
    ));
  if (missing) notFound();
  return (
    <FirstData lists={[{ key: ['gatherings', id], read: () => findGathering(id) }]}>
      <Gathering id={id} />
    </FirstData>
  );
}
