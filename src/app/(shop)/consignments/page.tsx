import { findConsignments } from '@/services/consignments/find-consignments';
import { FirstData } from '../first-data';
import { Consignments } from './_consignments/consignments';

export const metadata = { title: 'Consignments' };

export default function ConsignmentsPage() {
  return (
    <FirstData lists={[{ key: ['consignments'], read: () => findConsignments({ limit: 50 }), from: 0 }]}>
      <Consignments />
    </FirstData>
  );
}
