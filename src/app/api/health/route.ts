import { webDeps } from '@/server/web';

/** Whether the application and its database answer. */
export async function GET(): Promise<Response> {
  await webDeps().db.raw('select 1');
  return Response.json({ name: 'Gate Post' });
}

export const dynamic = 'force-dynamic';
