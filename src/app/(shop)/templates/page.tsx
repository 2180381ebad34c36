import { findTemplates } from '@/services/listings/templates/find-templates';
import { FirstData } from '../first-data';
import { Templates } from './_templates/templates';

export const metadata = { title: 'Templates' };

export default async function TemplatesPage() {
  const lists = [{ key: ['templates'], read: () => findTemplates() }];
  return (
    <FirstData lists={lists}>
      <Templates />
    </FirstData>
  );
}
