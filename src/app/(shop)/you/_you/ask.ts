/** Asks the sign-in for something; what it says when it refuses is thrown in words of ours. */
export async function ask<T = unknown>(place: string, body: Record<string, unknown>): Promise<T> {
  const answer = await fetch(`/api/auth/${place}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  const told = (await answer.json().catch(() => ({}))) as T & { message?: string; code?: string }; // JSON of the sign-in
  if (answer.ok) return told;
  if (told.code === 'INVALID_PASSWORD') throw new Error('The password is wrong');
  if (told.code === 'INVALID_CODE') throw new Error('The code is wrong, or its half minute is over');
  throw new Error(told.message ?? 'It did not work');
}
