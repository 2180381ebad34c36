import { type ConditionGrade, conditionGrades } from '../item/condition';

/** What a command label does instead of a key. */
export type Command =
  | { do: 'grade'; grade: ConditionGrade }
  /** Switches the sentence of this number, from 1, on or off. */
  | { do: 'snippet'; number: number }
  | { do: 'preset'; id: number }
  | { do: 'quantity'; units: number }
  | { do: 'undo' }
  | { do: 'again' }
  | { do: 'box' }
  | { do: 'yes' };

/**
 * Letters and digits alone, of those that lie at the same place on most keyboards: a scanner that plays a keyboard of
 * another country would write other signs.
 */
const prefix = 'NETDO';
const letters = { undo: 'U', again: 'R', box: 'B', yes: 'J' } as const;

/** The text of the barcode of a command label. */
export function commandCode(command: Command): string {
  switch (command.do) {
    case 'grade':
      return `${prefix}G${conditionGrades.findIndex((one) => one.id === command.grade) + 1}`;
    case 'snippet':
      return `${prefix}S${command.number}`;
    case 'preset':
      return `${prefix}P${command.id}`;
    case 'quantity':
      return `${prefix}K${command.units}`;
    default:
      return prefix + letters[command.do];
  }
}

/** The command that a scanned text is; null when it is none. */
export function readCommand(text: string): Command | null {
  const [, letter = '', digits = ''] = /^NETDO([A-Z])(\d{0,6})$/.exec(text.trim().toUpperCase()) ?? [];
  const number = Number(digits);
  for (const [name, one] of Object.entries(letters) as [keyof typeof letters, string][])
    if (letter === one && digits === '') return { do: name };
  if (digits === '' || number < 1) return null;
  const grade = conditionGrades[number - 1];
  if (letter === 'G') return grade ? { do: 'grade', grade: grade.id } : null;
  if (letter === 'S') return { do: 'snippet', number };
  if (letter === 'P') return { do: 'preset', id: number };
  return letter === 'K' && number <= 1_000 ? { do: 'quantity', units: number } : null;
}
