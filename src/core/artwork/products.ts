import type { CompiledRules } from '../rules';
import type { Area } from './place';

/** Something that artwork is printed on at a marketplace. */
export type Product = { market: string; id: string; name: string; area: Area };

const found = new WeakMap<CompiledRules, Product[]>();

/** The products with a print area that a marketplace publishes; looked for once, however many listings ask. */
function productsOf(compiled: CompiledRules): Product[] {
  const known = found.get(compiled);
  if (known) return known;
  const { rules } = compiled;
  const products = rules.extras.flatMap(({ values }) =>
    (values ?? []).flatMap(({ id, label, area }): Product[] =>
      area ? [{ market: rules.name, id, name: label, area }] : [],
    ),
  );
  found.set(compiled, products);
  return products;
}

/** Every product with a print area that these marketplaces publish. */
export const productsOffered = (all: readonly CompiledRules[]): Product[] => all.flatMap(productsOf);
