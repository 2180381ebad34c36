import { loadCustomFields } from '@/services/records/load-custom-fields';
import { readSettings } from '@/services/records/read-settings';
import { FirstData } from '../first-data';
import { Settings } from './_settings/settings';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const lists = [
    { key: ['settings'], read: () => readSettings() },
    { key: ['custom-fields'], read: async () => ({ fields: await loadCustomFields() }) },
  ];
  return (
    <FirstData lists={lists}>
      <Settings />
    </FirstData>
  );
}
