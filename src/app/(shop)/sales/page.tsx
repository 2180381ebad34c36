import { Sales } from './sales';

export const metadata = { title: 'Sales' };

export default function SalesPage() {
  return <Sales />;
}
