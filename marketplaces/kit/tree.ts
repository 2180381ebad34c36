import type { Attribute, Category } from './types';

/** An attribute in short: name, values (or null for free text), required. */
export const attribute = (name: string, values: string[] | null = null, required = false, max = 60): Attribute => ({
  id: name.toLowerCase().replace(/[^a-z0-9]+/g, '_'),
  name,
  required,
  values,
  max,
});

export type Branch = { name: string; leaves: Record<string, Attribute[]> };

/** A two-level tree as the flat list that the rules publish; ids are made from a prefix and the position. */
export function tree(prefix: string, branches: Branch[]): Category[] {
  return branches.flatMap(({ name, leaves }, branch) => {
    const top = `${prefix}${(branch + 1) * 100}`;
    const children = Object.entries(leaves).map(([leaf, attributes], index) => ({
      id: `${prefix}${(branch + 1) * 100 + index + 1}`,
      name: leaf,
      path: [name, leaf],
      leaf: true,
      attributes,
    }));
    return [{ id: top, name, path: [name], leaf: false, attributes: [] }, ...children];
  });
}
