import { NotThere } from '@/ui/controls/states';

export const metadata = { title: 'Nothing here' };

export default function NotFound() {
  return (
    <main className="min-h-dvh">
      <NotThere />
    </main>
  );
}
