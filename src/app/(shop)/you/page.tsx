import { You } from './_you/you';

export const metadata = { title: 'You' };

export default function YouPage() {
  return <You />;
}
