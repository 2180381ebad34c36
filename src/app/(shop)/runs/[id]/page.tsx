import { notFound } from 'next/navigation';
import { RunPage } from './_run/run-page';

export const metadata = { title: 'What a change did' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return <RunPage runId={id} key={id} />;
}
