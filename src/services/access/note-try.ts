import { eq } from 'drizzle-orm';
import { database } from '../../db/client';
import { authUser } from '../../db/schema';
import { noteSignIn } from './note-about-people';

/**
 * Keeps that somebody signed in, or that a try was refused. Tries for names that nobody has are not kept: nobody could do
 * anything about them, and a stranger could fill the list.
 */
export async function noteTry(email: string, answer: Response, address: string): Promise<void> {
  const [user] = await database()
    .select({ name: authUser.name, twoStep: authUser.twoFactorEnabled })
    .from(authUser)
    .where(eq(authUser.email, email.trim().toLowerCase()));
  if (!user) return;
  const what =
    answer.status === 429
      ? 'Had to wait: too many tries'
      : !answer.ok
        ? 'A wrong password was given'
        : user.twoStep
          ? 'Gave the password; the second step follows'
          : 'Signed in';
  await noteSignIn(user.name, `${what}, from ${address}`);
}
