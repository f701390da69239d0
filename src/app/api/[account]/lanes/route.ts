import { serve } from '@/app/api/_handle/handle';
import { setLanePlan } from '@/server/use-cases/lanes/set-lane-plan';

export const GET = serve('GET lanes', ({ ask, slug, query }) => ask('viewLanes', slug, query));

export const PUT = serve('PUT lanes', ({ deps, slug, personId, body }) =>
  setLanePlan(deps, slug, personId, body),
);
