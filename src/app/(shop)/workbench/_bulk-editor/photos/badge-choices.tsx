import { useQuery } from '@tanstack/react-query';
import { useId } from 'react';
import { api } from '@/ui/data/api';

type Props = { label: string; value: string; change: (text: string) => void };

/** One of the kept badges, or every badge. */
export function KeptBadgeInput({ label, value, change }: Props) {
  const id = useId();
  const { data } = useQuery({ queryKey: ['badges'], queryFn: () => api('GET /badges') });
  return (
    <div className="flex flex-col gap-0.5">
      <label htmlFor={id} className="quiet text-[12px]">
        {label}
      </label>
      <select
        id={id}
        data-step-input
        className="select select-sm w-full"
        value={value}
        onChange={(event) => change(event.target.value)}
      >
        <option value="">Every badge</option>
        {data?.badges.map((badge) => (
          <option key={badge.id} value={badge.id}>
            {badge.name}
          </option>
        ))}
      </select>
    </div>
  );
}

/** How many photos the badge has another place on; they are moved on the contact sheet. */
export function ApartInput({ value, change }: Omit<Props, 'label'>) {
  const count = value ? Object.keys(JSON.parse(value) as object).length : 0; // written by the contact sheet
  if (count === 0) return null;
  return (
    <p className="quiet col-span-2 text-[12px]">
      Moved on {count} {count === 1 ? 'photo' : 'photos'}.{' '}
      <button type="button" className="underline" onClick={() => change('')}>
        Put {count === 1 ? 'it' : 'them'} back
      </button>
    </p>
  );
}
