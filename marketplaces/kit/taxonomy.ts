import { type Branch, branches, type Good, goods } from './goods';
import { traits } from './traits';
import type { Attribute, Category } from './types';

export type TaxonomyOptions = {
  /** What the numbers of its categories begin with. */
  prefix: string;
  /** Which of the three names it uses, for kinds and branches and for properties. */
  names: 0 | 1 | 2;
  traitNames: 0 | 1 | 2;
  /** Its own spelling of values, where there is one. */
  otherValues?: boolean;
  /** How many of a kind's properties it asks about, and how many of those must be said. */
  most: number;
  required(good: Good): string[];
  /** A level above the branches, or none. */
  above?: Partial<Record<Branch, string>>;
  /** What else a category demands, by id of the field. */
  demands?(good: Good): string[];
};

const idOf = (name: string) => name.toLowerCase().replace(/[^a-z0-9]+/g, '_');

/** One marketplace's tree over all kinds of goods: its own names, numbers, depth, and properties. */
export function taxonomy(options: TaxonomyOptions): Category[] {
  const { prefix, names, traitNames, most } = options;
  const attributesOf = (good: Good): Attribute[] => {
    const must = options.required(good);
    const asked = [...new Set([...good.traits.filter((key) => must.includes(key)), ...good.traits])].slice(
      0,
      Math.max(3, most),
    );
    return asked.map((key) => {
      const trait = traits[key];
      const name = trait.names[traitNames];
      const other = 'other' in trait ? trait.other : undefined;
      return {
        id: idOf(name),
        name,
        required: must.includes(key),
        values: options.otherValues && other ? [...other] : trait.values ? [...trait.values] : null,
        max: 'max' in trait ? trait.max : 60,
      };
    });
  };
  const tops = [...new Set(Object.values(options.above ?? {}))];
  const made: Category[] = tops.map((name, index) => ({
    id: `${prefix}${index + 1}`,
    name,
    path: [name],
    leaf: false,
    attributes: [],
    demands: [],
  }));
  Object.entries(branches).forEach(([key, called], index) => {
    const branch = key as Branch; // the keys of the table just read
    const top = options.above?.[branch];
    const path = [...(top ? [top] : []), called[names]];
    const number = (index + 1) * 100;
    made.push({ id: `${prefix}${number}`, name: called[names], path, leaf: false, attributes: [], demands: [] });
    goods
      .filter((good) => good.branch === branch)
      .forEach((good, at) => {
        made.push({
          id: `${prefix}${number + at + 1}`,
          name: good.names[names],
          path: [...path, good.names[names]],
          leaf: true,
          attributes: attributesOf(good),
          demands: options.demands?.(good) ?? [],
        });
      });
  });
  return made;
}

/** The number of a kind's category in such a tree. */
export const categoryOf = (categories: Category[], key: string, names: 0 | 1 | 2): string => {
  const name = goods.find((good) => good.key === key)?.names[names];
  return categories.find((category) => category.leaf && category.name === name)?.id ?? '';
};
