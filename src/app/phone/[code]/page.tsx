import type { Metadata } from 'next';
import { itemOfCode } from '@/services/items/phone-code';
import { PhoneCamera } from './phone-camera';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Photos – Netting', robots: 'noindex', referrer: 'no-referrer' };

/** The page that a phone opens by the code: photographing for one item, nothing else. */
export default async function PhonePage({ params }: { params: Promise<{ code: string }> }) {
  const { code } = await params;
  const known = await itemOfCode(code);
  if (!known)
    return (
      <main className="p-6">
        <h1 className="mb-2 text-lg font-semibold">This code is over</h1>
        <p>Show a new one on the item’s sheet, with “From the phone”, and point the camera at it.</p>
      </main>
    );
  return <PhoneCamera code={code} title={known.title} />;
}
