/** Who does something: a signed-in person, a program with a token, or the system itself. */
export type Actor = { id: string; name: string };

export const systemActor: Actor = { id: 'system', name: 'Netting' };
