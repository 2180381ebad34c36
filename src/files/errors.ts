import { NettingError } from '../core/errors';

/** A file that is none of what can be read, in one sentence. */
export const unreadable = (why: string, fix = 'Save it as CSV or XLSX and read it again'): NettingError =>
  new NettingError('invalid', why, { field: 'file', fix });
