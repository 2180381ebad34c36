export const dynamic = 'force-dynamic';

/** The process answers, whatever the database does: nobody has to start it anew. Whether it can work is at /api/health. */
export const GET = (): Response => Response.json({ ok: true });
