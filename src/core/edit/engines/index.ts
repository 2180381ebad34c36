import { toPlainText } from '../../listing/fit/plain-text';
import { render } from '../../listing/template/render';
import { readFormula } from './formula';
import { replaceIn } from './pattern';
import { shiftDay } from './shift-day';

/**
 * What verbs compute with and only the computation needs: patterns, templates, formulas. Kept apart from the verbs, so that
 * a page that names and describes steps loads none of it.
 */
export const engines = { replaceIn, render, readFormula, toPlainText, shiftDay };
export type Engines = typeof engines;
