import { RenewalsPage } from './_renewals/renewals';

export const metadata = { title: 'Renewal' };

export default function Page() {
  return <RenewalsPage />;
}
