import { serve } from '@/app/api/_handle/handle';
import { setFaults } from '@/server/use-cases/intake/fetch-report';

export const GET = serve('GET platform/faults', ({ deps, slug }) => setFaults(deps, slug, null));
export const PUT = serve('PUT platform/faults', ({ deps, slug, body }) => setFaults(deps, slug, body));
