import { Templates } from './_templates/templates';

export const metadata = { title: 'Templates' };

export default function TemplatesPage() {
  return <Templates />;
}
