import { notFound } from 'next/navigation';
import { AccountPage } from './_account/account-page';

export const metadata = { title: 'Account' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const id = Number((await params).id);
  if (!Number.isInteger(id) || id < 1) notFound();
  return <AccountPage accountId={id} key={id} />;
}
