/** Lines of the record that tell what was done and are no value of a field, and units, which come back as movements. */
const told = ['created', 'quantity', 'elsewhere'];

/** Whether what a line of the record changed can be brought back by itself: not what was sold, nor what is no value. */
export const isReturnable = ({ field, why }: { field: string; why: string }): boolean =>
  why !== 'sale' && !told.includes(field);
