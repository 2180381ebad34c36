import type { Item } from '../../item/item';
import { textLength } from './text-length';
import { fitTitle } from './title';

const wordsOnly = (text: string) =>
  text
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/**
 * A title by pattern: brand, model, features, and the colour in round brackets last; letters, digits and blanks only
 * besides. The features are what the title says beyond brand, model and colour; what does not fit goes from the least
 * telling on.
 * @param colour in the marketplace's own words; empty for none
 */
export function productTitle(
  item: Pick<Item, 'title' | 'brand' | 'model' | 'category'>,
  colour: string,
  max: number,
): { text: string; lost: string[] } {
  const brand = wordsOnly(item.brand);
  const model = wordsOnly(item.model);
  const tail = colour ? ` (${wordsOnly(colour)})` : '';
  const head = [
    brand,
    model.toLowerCase().startsWith(brand.toLowerCase()) && brand ? model.slice(brand.length).trim() : model,
  ]
    .filter(Boolean)
    .join(' ');
  // Each word of brand, model and colour is taken out once: a second `200` is the speed of the film.
  const features = `${head} ${wordsOnly(colour)}`
    .toLowerCase()
    .split(' ')
    .reduce((words, said) => {
      const at = words.findIndex((word) => word.toLowerCase() === said);
      return at < 0 ? words : words.filter((_, index) => index !== at);
    }, wordsOnly(item.title).split(' '))
    .join(' ');
  const whole = [head, features].filter(Boolean).join(' ');
  const fitted = fitTitle(whole, max - textLength(tail), [brand, model], [item.category]);
  // Abbreviations such as w/o are no words of letters only.
  return { text: `${wordsOnly(fitted.text)}${tail}`, lost: fitted.lost };
}
