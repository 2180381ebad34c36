import { findAccounts } from '@/services/accounts/find-accounts';
import { findGatherings } from '@/services/gathering/find-gathering';
import { FirstData } from '../first-data';
import { BringIn } from './_bring-in/bring-in';

export const metadata = { title: 'Bring in' };

export default function Page() {
  return (
    <FirstData
      lists={[
        { key: ['accounts'], read: findAccounts },
        { key: ['gatherings'], read: findGatherings },
      ]}
    >
      <BringIn />
    </FirstData>
  );
}
