import { findKits } from '@/services/kits/find-kits';
import { FirstData } from '../first-data';
import { Kits } from './_kits/kits';

export const metadata = { title: 'Sets' };

export default function KitsPage() {
  return (
    <FirstData lists={[{ key: ['kits'], read: () => findKits({ limit: 50 }), from: 0 }]}>
      <Kits />
    </FirstData>
  );
}
