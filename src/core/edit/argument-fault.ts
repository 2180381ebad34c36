import { render } from '../listing/template/render';
import { readFormula } from './engines/formula';
import { replacingFault } from './engines/pattern';
import type { Do } from './verbs';

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
