import { Copies } from './_copies/copies';

export const metadata = { title: 'Copy a shop' };

export default function Page() {
  return <Copies />;
}
