import { lettingIn } from '@/app/api/_handle/handle';
import { toResponse } from '@/app/api/_handle/tell';
import { webDeps } from '@/server/web';

/** Whether the application and its database answer; what is down, where it does not. */
export const GET = lettingIn(async () => {
  try {
    await webDeps().db.raw('select 1');
  } catch (error) {
    return toResponse(error);
  }
  return Response.json({ name: 'Gate Post' });
});

export const dynamic = 'force-dynamic';
