import { parseQuery, reads } from '@/app/api/_handle/handle';
import { FiltersSchema } from '@/contracts/sift';

export const GET = reads(({ ask, slug, url }) => ask('listThemes', slug, parseQuery(url, FiltersSchema)));
