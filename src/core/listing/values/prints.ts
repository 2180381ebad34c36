import {
  artworkOf,
  groundsAttribute,
  isMadeToOrder,
  offeredPrints,
  type Print,
  placingFault,
  printReference,
  printVariations,
} from '../../artwork';
import type { Axis, Variation } from '../../item/variations';
import type { Json } from '../../json';
import { nameKey } from '../../rules/compiled';
import type { ExtraRule } from '../../rules/rules';
import type { ListingInput } from '../context';
import type { Issue } from '../fields';
import { chooseTemplate, printTemplates } from '../template/template';

/** What an account offers of artwork by its product templates. */
export type PrintsHere = {
  template: { id: number; name: string; tiedWith: string[] } | null;
  prints: Print[];
  /** Product → the printable, as a listing names it. */
  files: Map<string, string>;
  axes: Axis[];
  variations: Variation[];
  /** The cheapest of all: what the listing as a whole is called by where it has to name one. */
  main: { product: string; ground: string; price: number | null } | null;
  issues: Issue[];
};

const issue = (code: string, message: string, blocks: boolean): Issue => ({
  code,
  field: 'variations',
  message,
  blocks,
  fix: { kind: 'edit-template', label: 'Look at the template' },
});

const nothing = { template: null, prints: [], files: new Map(), axes: [], variations: [], main: null };

/** @returns null for an item that is no artwork, and where no template of the account says what is printed on */
export function printsHere({ item, account }: ListingInput): PrintsHere | null {
  if (account.templates.length === 0 || !isMadeToOrder(item) || item.axes.length) return null;
  const templates = printTemplates(account.templates);
  if (templates.length === 0) return null;
  const chosen = chooseTemplate(templates, item, account.today);
  if (!chosen?.print)
    return {
      ...nothing,
      issues: [
        issue('print-template', `No product template for ${account.name} fits it, and there is no default one`, true),
      ],
    };
  const { print, template, tiedWith } = chosen;
  const offered = offeredPrints(item, print, account.compiled);
  const { axes, variations } = printVariations(item, offered);
  const issues = offered.unknown.map((product) =>
    issue('print-unknown', `${account.compiled.rules.name} has no product “${product}” any more`, false),
  );
  if (variations.length === 0)
    issues.push({
      ...issue('print-none', 'It reads well on none of the grounds that are offered here, or all are called off', true),
      fix: { kind: 'edit-master', field: `attributes.${groundsAttribute}`, label: 'Say on which it reads well' },
    });
  const art = artworkOf(item);
  const files = new Map<string, string>();
  for (const one of offered.prints) {
    const fault = art && placingFault(one.area, art, one.placing);
    if (fault) issues.push(issue(`print-${fault.kind}`, `${one.product}: ${fault.words}`, false));
    const file = printReference(item, one, print.background);
    if (file) files.set(one.product, file);
  }
  const isArtwork = account.compiled.rules.photos.kind === 'artwork';
  const [product] = axes;
  if (isArtwork && product) product.photos = Object.fromEntries(files);
  return {
    template: { id: template.id, name: template.name, tiedWith },
    prints: offered.prints,
    files,
    axes,
    variations,
    main: cheapest(offered.prints, item.price),
    issues,
  };
}

function cheapest(prints: readonly Print[], price: number | null): PrintsHere['main'] {
  const amount = (one: Print) => one.price ?? price ?? Number.POSITIVE_INFINITY;
  const [first, ...others] = prints;
  if (!first) return null;
  const least = others.reduce((best, one) => (amount(one) < amount(best) ? one : best), first);
  return { product: least.product, ground: least.grounds[0]?.name ?? '', price: least.price ?? price };
}

/** A marketplace's own field that follows from what is offered: its product, its ground, how files of its measure lie. */
export function printedExtra({ main }: PrintsHere, extra: ExtraRule): Json | undefined {
  if (!main) return undefined;
  if (extra.printed !== undefined) return extra.printed;
  const has = (trait: 'area' | 'colour') => extra.values?.some((one) => one[trait] !== undefined) === true;
  const name = has('area') ? main.product : has('colour') ? main.ground : null;
  return name === null ? undefined : extra.values?.find((one) => nameKey(one.label) === nameKey(name))?.id;
}
