import { rateHistory } from '@/services/accounts/rates/rate-history';
import { findBoxes } from '@/services/records/accounts/find-boxes';
import { FirstData } from '../first-data';
import { Postage } from './_postage/postage';

export const metadata = { title: 'Postage and rates' };

export default async function PostagePage() {
  const lists = [
    { key: ['boxes'], read: async () => ({ boxes: await findBoxes() }) },
    { key: ['rates'], read: async () => ({ rates: await rateHistory() }) },
  ];
  return (
    <FirstData lists={lists}>
      <Postage />
    </FirstData>
  );
}
