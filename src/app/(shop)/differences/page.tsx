import { DriftPage } from './_drift/drift';

export const metadata = { title: 'Differences' };

export default function Page() {
  return <DriftPage />;
}
