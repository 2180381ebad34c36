import {
  caseLabels,
  cropShapes,
  goalLabels,
  putPlaces,
  roundingLabels,
  type VerbName,
  whichLabels,
} from '@/core/edit/verbs';
import { homeCurrency } from '@/core/measure/money';

/** How one argument of a verb is typed. `value` is read as the field itself is. */
export type VerbInput = {
  name: string;
  label: string;
  as:
    | 'value'
    | 'text'
    | 'words'
    | 'money'
    | 'signed money'
    /** An amount that may be below zero. */
    | 'net'
    | 'percent'
    /** A part of something in percent, never below zero. */
    | 'share'
    | 'number'
    | 'change'
    | 'entries'
    | 'choice'
    | 'check'
    | 'field'
    /** `Size: S, M; Colour: tan` */
    | 'axes'
    /** A kept picture, by its hash. */
    | 'picture'
    /** Places or an order: `3, 1, -1`. */
    | 'places'
    | 'order'
    /** A badge at its place, as JSON. */
    | 'layer'
    /** Places of single pictures, by their originals, as JSON. */
    | 'apart'
    /** A kept badge by its number. */
    | 'badge';
  choices?: readonly (readonly [id: string, label: string])[];
  placeholder?: string;
  /** Nothing typed is null. */
  optional?: boolean;
};

const endings: VerbInput[] = [
  { name: 'rounding', label: 'Ending', as: 'choice', choices: Object.entries(roundingLabels) },
  { name: 'floor', label: 'Never under', as: 'money', optional: true, placeholder: 'no floor' },
  { name: 'ceiling', label: 'Never over', as: 'money', optional: true, placeholder: 'no ceiling' },
];
const entries: VerbInput = { name: 'entries', label: 'Entries', as: 'entries', placeholder: 'one, another' };

/** Boxes that are not typed into: pictures, badges and their places. */
const photoInputs = ['picture', 'order', 'layer', 'badge', 'apart'] as const;
export type PhotoInputKind = (typeof photoInputs)[number];
export const isPhotoInput = (as: VerbInput['as']): as is PhotoInputKind => photoInputs.some((one) => one === as);

const meant = {
  name: 'which',
  label: 'Of these',
  as: 'choice' as const,
  choices: Object.entries(whichLabels),
};

/** What is asked for each verb, in the order in which it is typed. */
export const verbInputs: Record<VerbName | 'follow', readonly VerbInput[]> = {
  set: [{ name: 'value', label: 'Value', as: 'value' }],
  clear: [],
  before: [{ name: 'text', label: 'Text', as: 'text' }],
  after: [{ name: 'text', label: 'Text', as: 'text' }],
  replace: [
    { name: 'find', label: 'Find', as: 'words' },
    { name: 'put', label: 'Put instead', as: 'words', optional: true, placeholder: 'nothing' },
    {
      name: 'as',
      label: 'Read as',
      as: 'choice',
      choices: [
        ['words', 'Words'],
        ['pattern', 'Pattern'],
      ],
    },
    { name: 'matchCase', label: 'Capitals count', as: 'check' },
  ],
  case: [{ name: 'to', label: 'Case', as: 'choice', choices: Object.entries(caseLabels) }],
  cut: [{ name: 'most', label: 'Characters at most', as: 'number', placeholder: '75' }],
  fill: [{ name: 'pattern', label: 'Pattern', as: 'words', placeholder: '{{ brand }} {{ model }}' }],
  solve: [
    { name: 'goal', label: 'What is left', as: 'choice', choices: Object.entries(goalLabels) },
    { name: 'amount', label: `Net, ${homeCurrency}`, as: 'net', optional: true, placeholder: '12.00' },
    { name: 'basisPoints', label: 'Percent', as: 'percent', optional: true, placeholder: '30' },
    ...endings.filter((one) => one.name !== 'ceiling'),
  ],
  percent: [{ name: 'basisPoints', label: 'Percent', as: 'percent', placeholder: '-5' }, ...endings],
  amount: [{ name: 'amount', label: 'Amount', as: 'signed money', placeholder: '-2.50' }, ...endings],
  formula: [{ name: 'formula', label: 'Formula', as: 'words', placeholder: 'cost * 2.2 + 4' }, ...endings],
  ending: [{ name: 'rounding', label: 'Ending', as: 'choice', choices: Object.entries(roundingLabels) }],
  bounds: [
    { name: 'least', label: 'At least', as: 'value', optional: true, placeholder: 'no least' },
    { name: 'most', label: 'At most', as: 'value', optional: true, placeholder: 'no most' },
  ],
  add: [{ name: 'by', label: 'By', as: 'change', placeholder: '3 or -1' }],
  allowance: [{ name: 'percent', label: 'Percent', as: 'number', placeholder: '10' }],
  'add-to': [entries, { name: 'first', label: 'At the beginning', as: 'check' }],
  'remove-from': [entries],
  'replace-in': [
    { name: 'find', label: 'Entry', as: 'words' },
    { name: 'put', label: 'Put instead', as: 'words' },
  ],
  sort: [
    {
      name: 'by',
      label: 'Order',
      as: 'choice',
      choices: [
        ['name', 'A to Z'],
        ['name-back', 'Z to A'],
        ['length', 'Shortest first'],
      ],
    },
  ],
  'keep-first': [{ name: 'count', label: 'How many', as: 'number', placeholder: '5' }],
  translate: [
    { name: 'from', label: 'Where it is', as: 'value' },
    { name: 'to', label: 'Becomes', as: 'value' },
  ],
  shift: [{ name: 'days', label: 'Days', as: 'number', placeholder: '30 or -7' }],
  'set-name': [
    { name: 'name', label: 'Name', as: 'words', placeholder: 'Colour' },
    { name: 'text', label: 'Text', as: 'words' },
  ],
  'remove-name': [{ name: 'name', label: 'Name', as: 'words', placeholder: 'Colour' }],
  'rename-value': [
    { name: 'name', label: 'Name', as: 'words', placeholder: 'Colour' },
    { name: 'from', label: 'Where it is', as: 'words' },
    { name: 'to', label: 'Becomes', as: 'words' },
  ],
  take: [{ name: 'from', label: 'From', as: 'field' }],
  'follow-sales': [
    { name: 'basisPoints', label: 'Percent of it', as: 'share', placeholder: '100' },
    { name: 'days', label: 'Of the last days', as: 'number', placeholder: '180' },
    { name: 'least', label: 'Sales at least', as: 'number', placeholder: '3' },
    ...endings,
  ],
  'as-first': [],
  box: [],
  'by-terms': [],
  suggest: [{ name: 'certainty', label: 'From certainty, %', as: 'number', placeholder: '70' }],
  'set-axes': [{ name: 'axes', label: 'Axes with their values', as: 'axes', placeholder: 'Size: S, M; Colour: tan' }],
  more: [{ name: 'amount', label: 'Amount', as: 'signed money', placeholder: '+3.00' }],
  follow: [],
  'photo-put': [
    { name: 'photo', label: 'Picture', as: 'picture' },
    { name: 'at', label: 'Where', as: 'choice', choices: Object.entries(putPlaces) },
  ],
  'photo-replace': [
    { name: 'photo', label: 'Picture that goes', as: 'picture' },
    { name: 'put', label: 'Picture that comes', as: 'picture' },
    { name: 'alike', label: 'Also other takes of it', as: 'check' },
  ],
  'photo-take-out': [
    { name: 'photo', label: 'Picture', as: 'picture' },
    { name: 'alike', label: 'Also other takes of it', as: 'check' },
  ],
  'photo-remove-at': [{ name: 'places', label: 'Places', as: 'places', placeholder: '2, 3; -1 is the last' }],
  'photo-order': [{ name: 'order', label: 'In this order', as: 'order' }],
  'photo-original-last': [],
  'photo-crop': [
    { name: 'to', label: 'Shape', as: 'choice', choices: Object.entries(cropShapes) },
    {
      name: 'fit',
      label: 'How',
      as: 'choice',
      choices: [
        ['close', 'Close'],
        ['whole', 'Wide'],
      ],
    },
    meant,
  ],
  'photo-turn': [{ name: 'degrees', label: 'Degrees', as: 'number', placeholder: '90 or -1.5' }, meant],
  'photo-light': [
    { name: 'brightness', label: 'Brightness', as: 'number', optional: true, placeholder: 'as it is' },
    { name: 'contrast', label: 'Contrast', as: 'number', optional: true, placeholder: 'as it is' },
    { name: 'warmth', label: 'Warmth', as: 'number', optional: true, placeholder: 'as it is' },
    { name: 'tint', label: 'Tint', as: 'number', optional: true, placeholder: 'as it is' },
    meant,
  ],
  'photo-auto': [meant],
  'photo-backdrop': [
    { name: 'reach', label: 'Reach', as: 'number', optional: true, placeholder: '12' },
    { name: 'softness', label: 'Soft border', as: 'number', optional: true, placeholder: '2' },
    meant,
  ],
  'photo-badge': [
    { name: 'layer', label: 'Badge', as: 'layer' },
    { name: 'apart', label: 'Moved on single photos', as: 'apart' },
    meant,
  ],
  'photo-unbadge': [
    { name: 'badge', label: 'Badge', as: 'badge', optional: true },
    { ...meant, choices: [...meant.choices].reverse() },
  ],
  'photo-rebadge': [],
  'photo-plain': [meant],
  'clip-make': [
    { name: 'photos', label: 'Of the first photos', as: 'number', placeholder: '8' },
    { name: 'seconds', label: 'Seconds at most', as: 'number', placeholder: '15' },
  ],
};
