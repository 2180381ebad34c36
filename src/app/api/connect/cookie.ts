import { isSecure } from '@/services/access/auth';

/** What was begun at a marketplace's consent page, until the person is back; behind TLS bound to this very host. */
export const connectCookie = () =>
  isSecure()
    ? { name: '__Host-netting.connect', path: '/', secure: true }
    : { name: 'netting.connect', path: '/api/connect', secure: false };
