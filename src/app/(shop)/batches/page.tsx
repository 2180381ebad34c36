import { findBatches } from '@/services/intake/find-batches';
import { FirstData } from '../first-data';
import { Batches } from './_batches/batches';

export const metadata = { title: 'Batches' };

export default function BatchesPage() {
  return (
    <FirstData lists={[{ key: ['batches'], read: () => findBatches({ limit: 50 }), from: 0 }]}>
      <Batches />
    </FirstData>
  );
}
