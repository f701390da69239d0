/** Runs once when the web application starts: the first person who opens Sift should not wait for its snapshot. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { webLog, webThreads } = await import('@/server/web');
  // Behind the start: who comes first may wait for it, and the others need not.
  void webThreads()
    .ask('warmUp', [])
    .catch((error: unknown) => webLog.warn({ error }, 'warm-up failed; the first page will be slower'));
}
