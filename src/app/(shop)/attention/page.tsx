import { Attention } from './attention';

export const metadata = { title: 'Attention' };

export default function AttentionPage() {
  return <Attention />;
}
