import { notFound } from 'next/navigation';
import { Tying } from './_tying/tying';

export const metadata = { title: 'Photos to items' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return <Tying id={id} />;
}
