import type { Placing } from '@/core/artwork/place';

const numbers = [
  ['x', 'Across, %', 0, 100, 100],
  ['y', 'Down, %', 0, 100, 100],
  ['scale', 'Size, %', 1, 200, 100],
  ['degrees', 'Turned, °', -180, 180, 1],
] as const;

type Props = {
  placing: Placing;
  set: (placing: Placing) => void;
  /** How each of the fields is laid out. */
  look: string;
  /** The first of them is where one begins. */
  isFirst?: boolean;
};

/** Where a picture stands on a product, as numbers. */
export const PlacingFields = ({ placing, set, look, isFirst }: Props) =>
  numbers.map(([field, words, least, most, times], at) => (
    <label key={field} className="block">
      {words}
      <input
        className={`input input-sm figures block ${look}`}
        type="number"
        min={least}
        max={most}
        step="any"
        required
        data-first={(isFirst && at === 0) || undefined}
        value={Math.round(placing[field] * times * 10) / 10}
        onChange={(event) => {
          const typed = event.target.valueAsNumber;
          if (Number.isFinite(typed)) set({ ...placing, [field]: typed / times });
        }}
      />
    </label>
  ));
