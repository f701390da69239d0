import { serve } from '@/app/api/_handle/handle';
import { requireAccount } from '@/server/use-cases/open-workbench';
import { webThreads } from '@/server/web';

export const GET = serve('GET work', async ({ deps, slug }) => {
  await requireAccount(deps, slug);
  return { work: webThreads().working(slug) };
});
