import { handle } from '@/http/handle';

export const dynamic = 'force-dynamic';
export { handle as DELETE, handle as GET, handle as PATCH, handle as POST, handle as PUT };
