import { type Json, ownValue } from '../../json';
import type { MarketRules } from '../../rules/rules';
import type { ListingInput } from '../context';
import type { Issue, ListingValue } from '../fields';
import { toPlainText } from '../fit/plain-text';
import { type FittedVariations, fitVariations, ownLimits, readNarrowing } from '../fit/variations';
import { type Rendered, render, variablesOf } from '../template/render';
import { type ChosenTemplate, chooseTemplate, textTemplates } from '../template/template';
import { type PrintsHere, printsHere } from './prints';

export type Part = Omit<ListingValue, 'field' | 'label' | 'issues'> & {
  /** What went wrong while it was made, such as a template's missing variable. */
  faults?: Issue[];
};

export const unused: Part = { value: null, origin: 'unused' };
export const text = (value: Json | undefined): string => (typeof value === 'string' ? value : '');

const plainTexts = new WeakMap<object, { html: string; plain: string }>();

/** One listing while it is being computed: what several fields need, made when first asked for. */
export class Draft {
  readonly input: ListingInput;
  readonly rules: MarketRules;
  readonly chosen: ChosenTemplate | null;
  #prints: PrintsHere | null | undefined;
  #variations: FittedVariations | null | undefined;
  #variables = new Map<string, Record<string, unknown>>();

  constructor(input: ListingInput) {
    this.input = input;
    this.rules = input.account.compiled.rules;
    const { templates, today } = input.account;
    this.chosen = templates.length ? chooseTemplate(textTemplates(templates), input.item, today) : null;
  }

  /** What is offered of artwork here, and by which template; null for what is no artwork, or has no such templates here. */
  get prints(): PrintsHere | null {
    if (this.#prints === undefined) this.#prints = printsHere(this.input);
    return this.#prints;
  }

  get item() {
    return this.input.item;
  }

  get account() {
    return this.input.account;
  }

  /** What was written for this marketplace alone; undefined when it follows the item. */
  override(field: string): Json | undefined {
    return ownValue(this.input.overrides, field);
  }

  /** The item's combinations as they are offered here; null for an item without variations. */
  get variations(): FittedVariations | null {
    if (this.#variations === undefined) {
      const limits = this.rules.variations ?? null;
      const narrowing = readNarrowing(this.override('variations'));
      const { item, prints } = this;
      if (prints)
        this.#variations = prints.variations.length
          ? fitVariations({ ...item, axes: prints.axes, variations: prints.variations }, limits, narrowing)
          : null;
      else this.#variations = item.axes.length ? fitVariations(item, ownLimits(this.rules), narrowing) : null;
    }
    return this.#variations;
  }

  /** The item's description without markup, made once however many marketplaces ask. */
  get plainDescription(): string {
    const { item } = this.input;
    const known = plainTexts.get(item);
    if (known && known.html === item.description) return known.plain;
    const plain = toPlainText(item.description);
    plainTexts.set(item, { html: item.description, plain });
    return plain;
  }

  /** A text with variables, filled from the item. */
  fill(raw: string, format: 'rich' | 'plain'): Rendered {
    if (!raw.includes('{')) return { text: raw, problem: null };
    let variables = this.#variables.get(format);
    if (!variables) {
      const description = format === 'rich' ? this.item.description : this.plainDescription;
      variables = variablesOf(this.item, this.account.name, description, format);
      this.#variables.set(format, variables);
    }
    return render(raw, variables);
  }

  /** What the template says for a field, with the issue when it cannot be filled; null when it says nothing. */
  fromTemplate(field: string, format: 'rich' | 'plain'): { text: string | null; faults: Issue[] } | null {
    const raw = this.chosen?.fields[field];
    if (this.chosen === null || raw === undefined || raw.trim() === '') return null;
    const filled = this.fill(raw, format);
    return { text: filled.text, faults: faultsOf(filled, field, `The template “${this.chosen.template.name}”`) };
  }
}

/** A template that cannot be filled is an issue at its place, not an empty hole. */
export function faultsOf(filled: Rendered, field: string, who: string): Issue[] {
  if (filled.problem === null) return [];
  const { kind, what } = filled.problem;
  const name = what.replace(/^attributes\./, '');
  return [
    {
      code: kind === 'missing' ? 'template-variable' : 'template-broken',
      field,
      message:
        kind === 'missing' ? `${who} needs “${name}”, which this item does not say` : `${who} cannot be read: ${what}`,
      blocks: true,
      fix:
        kind === 'missing'
          ? {
              kind: 'edit-master',
              field: known.has(name) ? name : `attributes.${name.replace(/_/g, ' ')}`,
              label: `Add ${name.replace(/_/g, ' ')}`,
            }
          : { kind: 'edit-template', label: 'Mend the template' },
    },
  ];
}
const known = new Set([
  'title',
  'brand',
  'model',
  'category',
  'condition',
  'description',
  'highlights',
  'keywords',
  'price',
  'barcode',
  'weight',
]);
