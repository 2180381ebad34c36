import { findCauses } from '@/services/outbox/find-causes';
import { FirstData } from '../first-data';
import { Attention } from './attention';

export const metadata = { title: 'Attention' };

export default async function AttentionPage() {
  const lists = [{ key: ['causes'], read: async () => ({ causes: await findCauses() }) }];
  return (
    <FirstData lists={lists}>
      <Attention />
    </FirstData>
  );
}
