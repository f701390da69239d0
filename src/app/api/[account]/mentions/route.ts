import { serve } from '@/app/api/_handle/handle';
import { viewMentions } from '@/server/use-cases/mentions/mentions';

export const GET = serve('GET mentions', ({ deps, slug, personId }) => viewMentions(deps, slug, personId));
