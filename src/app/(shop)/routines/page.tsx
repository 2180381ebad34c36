import { findRoutines } from '@/services/routines/find-routines';
import { FirstData } from '../first-data';
import { Routines } from './_routines/routines';

export const metadata = { title: 'Routines' };

export default async function RoutinesPage() {
  const lists = [{ key: ['routines'], read: async () => ({ routines: await findRoutines() }) }];
  return (
    <FirstData lists={lists}>
      <Routines />
    </FirstData>
  );
}
