import { findAccounts } from '@/services/accounts/find-accounts';
import { findDrops } from '@/services/photos/find-drops';
import { countFlaws } from '@/services/photos/find-flaws';
import { FirstData } from '../first-data';
import { Photos } from './_photos/photos';

export const metadata = { title: 'Photos' };

export default function Page() {
  return (
    <FirstData
      lists={[
        { key: ['accounts'], read: findAccounts },
        { key: ['photo-flaws'], read: countFlaws },
        { key: ['photo-drops'], read: findDrops },
      ]}
    >
      <Photos />
    </FirstData>
  );
}
