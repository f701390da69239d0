import { serve } from '@/app/api/_handle/handle';
import { viewIdeaSource } from '@/server/use-cases/research/idea-source';

export const GET = serve('GET research/source', ({ deps, slug }) => viewIdeaSource(deps, slug));
