import { notFound } from 'next/navigation';
import { previewItem } from '@/services/items/preview-item';
import { FirstData } from '../../../first-data';
import { PreviewPage } from './_preview/preview-page';

export const metadata = { title: 'What each marketplace gets' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return (
    <FirstData lists={[{ key: ['preview', id], read: () => previewItem(id) }]}>
      <PreviewPage itemId={id} key={id} />
    </FirstData>
  );
}
