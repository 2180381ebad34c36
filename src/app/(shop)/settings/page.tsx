import type { Metadata } from 'next';
import { Settings } from './_settings/settings';

export const metadata: Metadata = { title: 'Settings – Netting' };

export default function SettingsPage() {
  return <Settings />;
}
