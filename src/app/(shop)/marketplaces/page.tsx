import { Accounts } from './_accounts/accounts';

export const metadata = { title: 'Marketplaces' };

export default function MarketplacesPage() {
  return <Accounts />;
}
