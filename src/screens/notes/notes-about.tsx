'use client';

import { useQuery } from '@tanstack/react-query';
import { useRoutes } from '@/screens/frame/data/routes';
import { Notes, type About } from './notes';

/** Notes on something that does not bring them along, read by themselves. */
export function NotesAbout({ about }: { about: About }) {
  const { query } = useRoutes();
  const { data } = useQuery(query('GET notes', { query: about }));
  return data ? <Notes about={about} notes={data.notes} /> : null;
}
