import type { Category, Data, Json, Look, Problem, Rules, Seller } from './types';

export const textOf = (value: Json | undefined): string => (typeof value === 'string' ? value : '');
export const numberOf = (value: Json | undefined): number => (typeof value === 'number' ? value : Number.NaN);
export const listOf = (value: Json | undefined): string[] =>
  Array.isArray(value) ? value.filter((one) => typeof one === 'string') : [];
export const dataOf = (value: Json | undefined): Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? value : {};
export const lengthOf = (text: string): number => [...text].length;

/** Collects problems of one listing; each check names the field by its JSON pointer. */
export class Checks {
  readonly problems: Problem[] = [];

  say(pointer: string, detail: string): void {
    this.problems.push({ pointer, detail });
  }

  text(pointer: string, value: Json | undefined, min: number, max: number, name: string): void {
    const length = lengthOf(textOf(value).trim());
    if (length < min)
      this.say(pointer, min === 1 ? `${name} is missing.` : `${name} is too short, at least ${min} characters.`);
    if (lengthOf(textOf(value)) > max) this.say(pointer, `${name} is too long, at most ${max} characters.`);
  }

  range(pointer: string, value: Json | undefined, min: number, max: number, name: string): void {
    const number = numberOf(value);
    if (!(number >= min && number <= max)) this.say(pointer, `${name} must be between ${min} and ${max}.`);
  }

  oneOf(pointer: string, value: Json | undefined, choices: { id: string }[], name: string, required: boolean): void {
    if (value === undefined || value === null) {
      if (required) this.say(pointer, `${name} is missing.`);
      return;
    }
    if (!choices.some((choice) => choice.id === value)) this.say(pointer, `${name} is not one that we know.`);
  }

  /** One of the sections that the seller named in the shop; any words where none was named. */
  section(value: Json | undefined, rules: Rules, max: number): void {
    const { sections } = rules.lists;
    if (sections) this.oneOf('/section', value, sections, 'The section', false);
    else this.text('/section', value ?? '', 0, max, 'The section');
  }

  items(pointer: string, values: string[], max: number, maxLength: number, name: string): void {
    if (values.length > max) this.say(pointer, `Too many ${name}, at most ${max}.`);
    const long = values.findIndex((value) => lengthOf(value) > maxLength);
    if (long >= 0) this.say(`${pointer}/${long}`, `One of the ${name} is longer than ${maxLength} characters.`);
  }

  /** Pictures that were uploaded, as many as allowed, large enough, of the wanted shape (width by height). */
  pictures(
    pointer: string,
    ids: string[],
    look: Look,
    wanted: { min: number; max: number; longest?: number; shortest?: number; narrow?: number; wide?: number },
  ): void {
    const { min, max, longest = 0, shortest = 0, narrow = 0, wide = Number.POSITIVE_INFINITY } = wanted;
    if (ids.length < min)
      this.say(pointer, min === 1 ? 'At least one picture is needed.' : `At least ${min} pictures are needed.`);
    if (ids.length > max) this.say(pointer, `At most ${max} picture${max === 1 ? '' : 's'}.`);
    for (const [index, id] of ids.entries()) {
      const size = look.photo(id);
      const at = `${pointer}/${index}`;
      if (!size) this.say(at, 'This picture was never uploaded.');
      else if (Math.max(size.width, size.height) < longest)
        this.say(at, `A picture must have ${longest} pixels on its longest side.`);
      else if (Math.min(size.width, size.height) < shortest)
        this.say(at, `A picture must have ${shortest} pixels on each side.`);
      else if (size.width / size.height < narrow * 0.995 || size.width / size.height > wide * 1.005)
        this.say(
          at,
          narrow === 1 && wide === 1 ? 'A picture must be square.' : 'The shape of the picture is not allowed.',
        );
    }
  }

  /** A film that was uploaded, of at most so many seconds. */
  clip(value: Json | undefined, look: Look, max: number): void {
    if (value === undefined || value === null) return;
    const film = look.clip(textOf(value));
    if (!film) this.say('/clip', 'This clip was never uploaded.');
    else if (film.seconds > max) this.say('/clip', `A clip lasts at most ${max} seconds.`);
  }

  /** Plain text holds no markup. */
  plain(pointer: string, value: Json | undefined, name: string): void {
    if (/<\/?[a-z][^>]*>/i.test(textOf(value))) this.say(pointer, `${name} must be plain.`);
  }

  /** No addresses of web pages. */
  noLinks(pointer: string, value: Json | undefined, name: string): void {
    if (/https?:\/\/|\bwww\.|<a\b/i.test(textOf(value))) this.say(pointer, `${name} must not hold links.`);
  }

  /** The category must be a leaf; its attributes are checked with it. */
  category(
    pointer: string,
    value: Json | undefined,
    attributesPointer: string,
    attributes: Data,
    rules: Rules,
  ): Category | null {
    const category = rules.categories.find((one) => one.id === value);
    if (!category) {
      this.say(pointer, 'The category is not one that we know.');
      return null;
    }
    if (!category.leaf) this.say(pointer, 'The category must be of the deepest level.');
    for (const attribute of category.attributes) {
      const said = textOf(attributes[attribute.id]);
      const at = `${attributesPointer}/${attribute.id}`;
      if (said === '') {
        if (attribute.required) this.say(at, `${attribute.name} is missing.`);
      } else if (attribute.values && !attribute.values.includes(said))
        this.say(at, `${attribute.name} is not one that we know.`);
      else if (lengthOf(said) > attribute.max) this.say(at, `${attribute.name} is too long.`);
    }
    return category;
  }
}

/** A limit as it holds for this seller. */
export const limitFor = (rules: Rules, seller: Seller, name: string): number => {
  const own = seller.exceptions[name];
  return typeof own === 'number' ? own : (rules.limits[name] ?? Number.POSITIVE_INFINITY);
};

/** The rules as they hold in this seller's own shop: with the sections, collections, places and profiles named there. */
export function rulesOf(rules: Rules, seller: Seller): Rules {
  const own = Object.entries(dataOf(seller.exceptions.lists)).map(([name, list]): [string, Rules['lists'][string]] => [
    name,
    (Array.isArray(list) ? list : []).map(dataOf).map((one) => ({ id: textOf(one.id), label: textOf(one.label) })),
  ]);
  return own.length ? { ...rules, lists: { ...rules.lists, ...Object.fromEntries(own) } } : rules;
}

export const plainOf = (html: string): string =>
  html
    .replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
