import { LineCollector } from './batch';

/** A marketplace that takes lines and keeps each go until it is let go. */
function market(most: number, goes: number) {
  const sent: string[][] = [];
  const open: (() => void)[] = [];
  const collector = new LineCollector<string, string>({
    most,
    goes,
    send: (lines) => {
      sent.push(lines);
      return new Promise((resolve, reject) => {
        open.push(() => (lines.includes('bad') ? reject(new Error('no')) : resolve(lines.map((one) => `${one}!`))));
      });
    },
  });
  const answerAll = () => {
    for (const answer of open.splice(0)) answer();
  };
  return { collector, sent, answerAll };
}
const sentBecomes = async (sent: string[][], count: number) => {
  while (sent.length < count) await new Promise((resolve) => setTimeout(resolve, 5));
};

test('lines that come together travel together, and each gets its own answer', async () => {
  const { collector, sent, answerAll } = market(10, 1);
  const all = Promise.all(['a', 'b', 'c'].map((line) => collector.add(line)));
  await sentBecomes(sent, 1);
  answerAll();
  expect(await all).toEqual(['a!', 'b!', 'c!']);
  expect(sent).toEqual([['a', 'b', 'c']]);
});

test('while a go is under way the others gather; an urgent one does not wait', async () => {
  const { collector, sent, answerAll } = market(10, 1);
  const first = collector.add('a');
  await sentBecomes(sent, 1);
  const later = Promise.all([collector.add('b'), collector.add('c')]);
  const urgent = collector.add('now', true);
  await sentBecomes(sent, 2);
  expect(sent).toEqual([['a'], ['now']]);
  answerAll();
  expect(await Promise.all([first, urgent])).toEqual(['a!', 'now!']);
  await sentBecomes(sent, 3);
  answerAll();
  expect(await later).toEqual(['b!', 'c!']);
  expect(sent[2]).toEqual(['b', 'c']);
});

test('no go is larger than what they bear, and it becomes less when that was too much', async () => {
  const { collector, sent, answerAll } = market(4, 5);
  collector.shrink();
  expect(collector.size).toBe(2);
  const all = Promise.all(['a', 'b', 'c', 'd', 'e'].map((line) => collector.add(line)));
  await sentBecomes(sent, 3);
  answerAll();
  await all;
  expect(sent.map((lines) => lines.length)).toEqual([2, 2, 1]);
  for (let time = 0; time < 5; time++) collector.shrink();
  expect(collector.size).toBe(1);
});

test('when a go fails, its lines fail and the next ones go on', async () => {
  const { collector, sent, answerAll } = market(10, 1);
  const failing = collector.add('bad').catch((error: Error) => error.message);
  await sentBecomes(sent, 1);
  const fine = collector.add('good');
  answerAll();
  expect(await failing).toBe('no');
  await sentBecomes(sent, 2);
  answerAll();
  expect(await fine).toBe('good!');
});
