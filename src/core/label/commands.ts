import { type Command, commandCode } from '../batch/command';
import { conditionGrades } from '../item/condition';
import type { LabelWords } from './label';

const label = (command: Command, title: string, fact: string): LabelWords => ({
  kind: 'command',
  code: commandCode(command),
  title,
  facts: [fact],
  price: '',
});

/** Labels that stand for keys at the scan field: conditions, sentences, kept settings, units, one back, the same again. */
export const commandLabels = (presets: readonly { id: number; name: string }[]): LabelWords[] => [
  ...conditionGrades.map((one) => label({ do: 'grade', grade: one.id }, one.label, 'Condition')),
  ...Array.from({ length: 9 }, (_, index) =>
    label({ do: 'snippet', number: index + 1 }, `Sentence ${index + 1}`, 'On or off'),
  ),
  ...presets.map((one) => label({ do: 'preset', id: one.id }, one.name, 'Settings')),
  ...[2, 3, 4, 5, 10].map((units) => label({ do: 'quantity', units }, `${units} units`, 'The next scan')),
  label({ do: 'undo' }, 'One back', 'The last scan'),
  label({ do: 'again' }, 'Same again', 'The last scan'),
  label({ do: 'box' }, 'New box', 'The next place'),
  label({ do: 'yes' }, 'Yes', 'Really twice'),
];
