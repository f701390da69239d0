/** The first requests are answered before anything is made ready for others. */
const WARM_UP_AFTER_MS = 2_000;

/** Runs once when the web application starts: the first person who opens Sift should not wait for its snapshot. */
export function register(): void {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const warmUp = async () => {
    const { webLog, webThreads } = await import('@/server/web');
    try {
      await webThreads().ask('warmUp', []);
    } catch (error) {
      webLog.warn({ error }, 'warm-up failed; the first page will be slower');
    }
  };
  setTimeout(() => void warmUp(), WARM_UP_AFTER_MS).unref();
}
