import { toPlainText } from '../../listing/fit/plain-text';
import { render } from '../../listing/template/render';
import type { Do } from '../verbs';
import { readFormula } from './formula';
import { replaceIn, replacingFault } from './pattern';
import { shiftDay } from './shift-day';

/**
 * What verbs compute with and only the computation needs: patterns, templates, formulas. Kept apart from the verbs, so that
 * a page that names and describes steps loads none of it.
 */
export const engines = { replaceIn, render, readFormula, toPlainText, shiftDay };
export type Engines = typeof engines;

/** What cannot be read in the arguments of a verb, and in which of them; null where all can. */
export function argumentFault(what: Do): { argument: string; message: string } | null {
  switch (what.verb) {
    case 'replace':
      return replacingFault(what);
    case 'formula': {
      const read = readFormula(what.formula);
      return 'fault' in read ? { argument: 'formula', message: read.fault } : null;
    }
    case 'fill': {
      const { problem } = render(what.pattern, {});
      return problem?.kind === 'broken'
        ? { argument: 'pattern', message: `The pattern cannot be read: ${problem.what}` }
        : null;
    }
    default:
      return null;
  }
}
