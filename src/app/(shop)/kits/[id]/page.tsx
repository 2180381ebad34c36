import { notFound } from 'next/navigation';
import { findKit } from '@/services/kits/find-kit';
import { FirstData } from '../../first-data';
import { Kit } from './_kit/kit';

export const metadata = { title: 'Sets' };

export default async function KitPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return (
    <FirstData lists={[{ key: ['kit', id], read: () => findKit(id) }]}>
      <Kit id={id} key={id} />
    </FirstData>
  );
}
