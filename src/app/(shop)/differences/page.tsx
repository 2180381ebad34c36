import { Differences } from './_differences/differences';

export const metadata = { title: 'Differences' };

export default function Page() {
  return <Differences />;
}
