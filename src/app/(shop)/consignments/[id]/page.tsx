import { notFound } from 'next/navigation';
import { findConsignment } from '@/services/consignments/find-consignment';
import { FirstData } from '../../first-data';
import { Consignment } from './_consignment/consignment';

export const metadata = { title: 'Consignment' };

export default async function ConsignmentPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return (
    <FirstData lists={[{ key: ['consignment', id], read: () => findConsignment(id) }]}>
      <Consignment id={id} key={id} />
    </FirstData>
  );
}
