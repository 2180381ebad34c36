import { notFound } from 'next/navigation';
import { ToldPage } from './_preview/preview-page';

export const metadata = { title: 'What each marketplace gets' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return <ToldPage itemId={id} key={id} />;
}
