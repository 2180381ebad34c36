import { blankSheet } from '@/services/items/blank-sheet';
import { FirstData, type SearchParams } from '../../first-data';
import { Sheet } from '../[id]/_sheet/sheet';

export const metadata = { title: 'New item' };

export default async function NewItemPage({ searchParams }: { searchParams: SearchParams }) {
  const { n } = await searchParams;
  return (
    <FirstData lists={[{ key: ['sheet', 0], read: blankSheet }]}>
      <Sheet itemId={0} key={String(n)} />
    </FirstData>
  );
}
