import { Changed } from './_changed/changed';

export const metadata = { title: 'Changed' };

export default function ChangedPage() {
  return <Changed />;
}
