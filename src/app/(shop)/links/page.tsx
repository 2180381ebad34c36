import { Links } from './_links/links';

export const metadata = { title: 'Links' };

export default function Page() {
  return <Links />;
}
