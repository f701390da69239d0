import { parseQuery, reads } from '@/app/api/_handle/handle';
import { PullSchema } from '@/contracts/decisions';

export const GET = reads(({ ask, slug, url }) => ask('pullOut', slug, parseQuery(url, PullSchema)));
