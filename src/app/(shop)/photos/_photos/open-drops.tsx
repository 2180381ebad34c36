import { useQuery } from '@tanstack/react-query';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';

/** What was dropped and is not done with: it waits, also over night. */
export function OpenDrops() {
  const { data } = useQuery({ queryKey: ['photo-drops'], queryFn: () => api('GET /photo-drops') });
  const drops = data?.drops.filter(({ counts }) => counts.coming + counts.tied + counts.untied > 0) ?? [];
  if (drops.length === 0) return null;
  return (
    <ul aria-label="Drops that are not done with" className="border-b border-base-300">
      {drops.slice(0, 4).map(({ id, at, byName, counts }) => (
        <li key={id} className="flex items-center gap-3 px-4 py-1">
          <Link className="link" href={`/photos/drops/${id}`}>
            {counted(counts.tied + counts.untied + counts.coming, 'file')} of {byName}
          </Link>
          <span className="quiet">
            <When at={at} />
          </span>
          <span className="quiet">
            {counts.tied.toLocaleString('en')} tied to {counted(counts.items, 'item')},{' '}
            {counts.untied.toLocaleString('en')} to none
            {counts.coming ? `, ${counts.coming.toLocaleString('en')} not here yet: drop the same folder again` : ''}
          </span>
        </li>
      ))}
    </ul>
  );
}
