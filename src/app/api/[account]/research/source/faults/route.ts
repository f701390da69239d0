import { serve } from '@/app/api/_handle/handle';
import { setSourceFaults } from '@/server/use-cases/research/idea-source';

export const GET = serve('GET research/source/faults', ({ deps, slug }) => setSourceFaults(deps, slug, null));
export const PUT = serve('PUT research/source/faults', ({ deps, slug, body }) =>
  setSourceFaults(deps, slug, body),
);
