import { useQuery } from '@tanstack/react-query';
import { api } from '@/ui/data/api';
import { keepSettings } from '@/ui/data/keep-settings';
import { useCommand } from '@/ui/data/use-command';

/** How many photos are wanted on every listing; a marketplace that takes fewer is content with those. */
export function Wanted() {
  const { data } = useQuery({ queryKey: ['settings'], queryFn: () => api('GET /settings') });
  const save = useCommand(
    async (text: string) => {
      const photosWanted = Number(text);
      if (!Number.isInteger(photosWanted) || photosWanted < 1 || photosWanted > 30)
        throw new Error('A number from 1 to 30');
      return keepSettings({ photosWanted }, `Wanted on every listing: ${photosWanted}`);
    },
    { touches: [['settings'], ['photo-flaws'], ['photo-flawed']] },
  );
  if (!data) return null;
  return (
    <label className="mt-3 block px-2 text-[12px]">
      Wanted on every listing
      <input
        key={data.photosWanted}
        className="input input-xs figures ml-2 w-14"
        inputMode="numeric"
        defaultValue={data.photosWanted}
        aria-invalid={save.problem ? true : undefined}
        onBlur={(event) => event.target.value !== String(data.photosWanted) && void save.run(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
      />
      {save.problem ? (
        <span role="alert" className="ml-2 text-error">
          {save.problem}
        </span>
      ) : null}
    </label>
  );
}
