import type { CompiledRules } from '../rules';
import type { Area } from './place';

/** Something that artwork is printed on at a marketplace. */
export type Product = { market: string; id: string; name: string; area: Area };

/** Every product with a print area that these marketplaces publish. */
export const productsOffered = (all: readonly CompiledRules[]): Product[] =>
  all.flatMap(({ rules }) =>
    rules.extras.flatMap(({ values }) =>
      (values ?? []).flatMap(({ id, label, area }): Product[] =>
        area ? [{ market: rules.name, id, name: label, area }] : [],
      ),
    ),
  );
