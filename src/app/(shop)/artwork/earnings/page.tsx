import { Earnings } from './_earnings/earnings';

export const metadata = { title: 'What artwork earns' };

export default function EarningsPage() {
  return <Earnings />;
}
