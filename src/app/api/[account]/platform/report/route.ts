import { serve } from '@/app/api/_handle/handle';
import { fetchReport } from '@/server/use-cases/intake/fetch-report';

export const POST = serve('POST platform/report', async ({ deps, slug, personId }) => ({
  fileId: await fetchReport(deps, slug, personId),
}));
