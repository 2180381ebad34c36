import type { LineView } from '@/services/intake/line-view';
import { interpret } from './interpret';

const line = (what: LineView['needs'][number]['what']): LineView => ({
  id: 1,
  key: '',
  batchId: 1,
  scanned: '',
  code: '',
  kind: 'item',
  finding: 'found',
  said: '',
  units: 1,
  item: null,
  needs: [{ what, words: '' }],
  nets: [],
  best: null,
  leave: null,
  near: [],
  found: [{ entry: 'crateway/CW1', from: 'Crateway', name: 'One', category: '' }],
  sales: null,
  silent: [],
  isDone: true,
  isSettled: true,
  isUndone: false,
  byName: '',
  at: '',
});
const code = '4006381333931';

test('a lone number switches a sentence, or answers what is asked', () => {
  expect(interpret('3', 0, null, null)).toEqual({ is: 'command', command: { do: 'snippet', number: 3 } });
  expect(interpret('3', 0, line('grade'), null)).toEqual({ is: 'grade', grade: 'mint' });
  expect(interpret('1', 0, line('entry'), null)).toEqual({ is: 'entry', entry: 'crateway/CW1' });
  expect(interpret('2', 0, line('entry'), null)).toEqual({ is: 'nothing' });
  expect(interpret('12.50', 0, line('price'), null)).toEqual({ is: 'price', price: 1_250 });
});

test('while something is asked the next piece can be scanned all the same', () => {
  for (const what of ['grade', 'price', 'entry'] as const)
    expect(interpret(code, 0, line(what), null)).toEqual({ is: 'scan', text: code });
  expect(interpret('96385074', 0, line('price'), null)).toEqual({ is: 'scan', text: '96385074' });
});

test('the same twice within a second is asked about, later it is another piece', () => {
  const before = { text: code, at: 1_000 };
  expect(interpret(code, 1_400, null, before)).toEqual({ is: 'doubt', text: code });
  expect(interpret(code, 2_100, null, before)).toEqual({ is: 'scan', text: code });
  expect(interpret('9780306406157', 1_400, null, before)).toEqual({ is: 'scan', text: '9780306406157' });
});

test('a command label is no scan, and blanks are nothing', () => {
  expect(interpret('netdou', 0, null, null)).toEqual({ is: 'command', command: { do: 'undo' } });
  expect(interpret('  ', 0, null, null)).toEqual({ is: 'nothing' });
});
