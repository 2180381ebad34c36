/**
 * Our own nine-step scale, best first. Every marketplace's scale is mapped from it.
 * `isNew` marks the steps on which some marketplaces forbid a condition note.
 */
export const conditionGrades = [
  { id: 'new', label: 'New', isNew: true },
  { id: 'new-open', label: 'New, opened', isNew: true },
  { id: 'mint', label: 'Like new', isNew: false },
  { id: 'excellent', label: 'Excellent', isNew: false },
  { id: 'very-good', label: 'Very good', isNew: false },
  { id: 'good', label: 'Good', isNew: false },
  { id: 'fair', label: 'Fair', isNew: false },
  { id: 'poor', label: 'Worn', isNew: false },
  { id: 'parts', label: 'For parts or repair', isNew: false },
] as const;

export type ConditionGrade = (typeof conditionGrades)[number]['id'];

export const conditionIds = conditionGrades.map((grade) => grade.id) as [ConditionGrade, ...ConditionGrade[]]; // never empty: the list above

export const conditionLabel = (id: ConditionGrade | null): string =>
  conditionGrades.find((grade) => grade.id === id)?.label ?? '';
