import { findPeople } from '@/services/access/find-people';
import { FirstData, whoAsks } from '../first-data';
import { People } from './_people/people';

export const metadata = { title: 'People' };

export default async function PeoplePage() {
  const isOwner = (await whoAsks())?.role === 'owner';
  return (
    <FirstData lists={isOwner ? [{ key: ['people'], read: () => findPeople() }] : []}>
      <People />
    </FirstData>
  );
}
