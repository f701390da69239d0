'use client';

import { useSavedFiles } from '@/ui/table/saved-files';
import { call } from './routes';

/** Notes the files that this page makes; a file is saved all the same where that fails. */
export function useNotedFiles(slug: string) {
  useSavedFiles((name) => void call(slug, 'POST exports', { body: { name } }).catch(() => undefined));
}
