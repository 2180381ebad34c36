import type { AttributeRule, CategoryRule, MarketRules } from './rules';

/** Rules with the look-ups that computing a hundred thousand listings needs, made once per rules object. */
export type CompiledRules = {
  rules: MarketRules;
  categoryById: Map<string, CategoryRule>;
  brandByKey: Map<string, string> | null;
  valueByKey: (attribute: AttributeRule) => Map<string, string>;
};

const compiled = new WeakMap<MarketRules, CompiledRules>();

/** How names are compared: letters and digits only, lower case, accents off. */
export const nameKey = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '');

/** Rules prepared for computing; the same object gives the same result without work. */
export function compileRules(rules: MarketRules): CompiledRules {
  const known = compiled.get(rules);
  if (known) return known;
  const values = new WeakMap<AttributeRule, Map<string, string>>();
  const made: CompiledRules = {
    rules,
    categoryById: new Map(rules.categories.map((category) => [category.id, category])),
    brandByKey: rules.brand?.values ? new Map(rules.brand.values.map((brand) => [nameKey(brand), brand])) : null,
    valueByKey(attribute) {
      let map = values.get(attribute);
      if (!map) {
        map = new Map((attribute.values ?? []).map((value) => [nameKey(value), value]));
        values.set(attribute, map);
      }
      return map;
    },
  };
  compiled.set(rules, made);
  return made;
}
