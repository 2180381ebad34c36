import { notFound } from 'next/navigation';
import { ImportPage } from './_import/import-page';

export const metadata = { title: 'A file read in' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return <ImportPage id={id} key={id} />;
}
