import { notFound } from 'next/navigation';
import { itemSheet } from '@/services/items/item-sheet';
import { FirstData } from '../../first-data';
import { Sheet } from './_sheet/sheet';

export const metadata = { title: 'Item' };

export default async function ItemPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return (
    <FirstData lists={[{ key: ['sheet', id], read: () => itemSheet(id) }]}>
      <Sheet itemId={id} key={id} />
    </FirstData>
  );
}
