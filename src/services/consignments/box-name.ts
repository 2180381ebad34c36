/** What our own label of a box says, while the marketplace has not named it yet: letters and digits that any scanner types. */
export const boxLabelOf = (shipmentId: number, box: number): string => `BOX${shipmentId}N${box}`;
