import { useQuery } from '@tanstack/react-query';
import { builtInSizes } from '@/core/label/size';
import { api } from '@/ui/data/api';

/** Whether a label is printed of each piece as it is scanned, and of which size. */
export function LabelOf({ label, set }: { label: string | null; set: (label: string | null) => void }) {
  const settings = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings'), staleTime: 30_000 });
  const sizes = { ...builtInSizes, ...settings.data?.labelSizes };
  return (
    <label className="block">
      Label
      <select
        className="select select-sm w-full"
        value={label ?? ''}
        onChange={(event) => set(event.target.value || null)}
      >
        <option value="">none</option>
        {Object.entries(sizes)
          .filter(([, one]) => one.sheet === null)
          .map(([id, one]) => (
            <option key={id} value={id}>
              {one.name}
            </option>
          ))}
      </select>
    </label>
  );
}
