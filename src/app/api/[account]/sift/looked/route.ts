import { serve } from '@/app/api/_handle/handle';
import { lookAt } from '@/server/use-cases/sift/remember';

export const POST = serve('POST sift/looked', ({ deps, slug, body }) => lookAt(deps, slug, body.terms));
