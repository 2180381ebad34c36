import { notFound } from 'next/navigation';
import { Sheet } from './_sheet/sheet';

export const metadata = { title: 'Item' };

export default async function ItemPage({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return <Sheet itemId={id} key={id} />;
}
