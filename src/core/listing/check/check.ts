import type { ListingInput } from '../context';
import type { Content, Issue, ListingValue } from '../fields';
import { checkCategory, checkCondition, checkProduct, checkStockNumber } from './goods';
import { checkParcel, checkPhotos, checkPrice, checkQuantity } from './offer';
import { master, problem } from './problem';
import { checkDescription, checkHighlights, checkNote, checkTags, checkTitle } from './wording';

export { checkExtra } from './extras';
export { checkAttribute } from './goods';

/** Issues of one fixed field's value. */
export function checkFixed(value: ListingValue, input: ListingInput, content: Content): Issue[] {
  const { rules } = input.account.compiled;
  switch (value.field) {
    case 'title':
      return checkTitle(value, rules, content);
    case 'description':
      return checkDescription(value, rules);
    case 'condition':
      return checkCondition(value, rules, input);
    case 'conditionNote':
      return checkNote(value, rules);
    case 'category':
      return checkCategory(value, rules, input);
    case 'product':
      return checkProduct(value, rules, input);
    case 'highlights':
      return checkHighlights(value, rules);
    case 'price':
      return checkPrice(value, rules, input, content);
    case 'photos':
      return checkPhotos(value, rules, input);
    case 'tags':
      return checkTags(value, rules);
    case 'sku':
      return checkStockNumber(value, rules);
    case 'brand':
      if (!rules.brand?.required || value.value) return [];
      return [problem('brand-missing', 'brand', 'A brand is needed', master('brand', 'Write the brand'))];
    case 'quantity':
      return checkQuantity(value);
    case 'weightGrams':
    case 'size':
      return checkParcel(value, rules);
    default:
      return [];
  }
}
