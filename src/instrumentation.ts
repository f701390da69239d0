/** The first requests are answered before anything is made ready for others. */
const WARM_UP_AFTER_MS = 2_000;
/** So long after a load or a read-back at most, its window is being made ready. */
const LOOK_EVERY_MS = 3_000;

/**
 * Runs once when the web application starts: the first person who opens Sift, and the first after each load, should not wait
 * for its window.
 */
export function register(): void {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const keepWarm = async () => {
    const { webLog, webWarmer } = await import('@/server/web');
    const look = webWarmer();
    const lookAgain = async () => {
      try {
        await look();
      } catch (error) {
        webLog.warn({ error }, 'a window could not be made ready; the first page will be slower');
      }
      setTimeout(() => void lookAgain(), LOOK_EVERY_MS).unref();
    };
    await lookAgain();
  };
  setTimeout(() => void keepWarm(), WARM_UP_AFTER_MS).unref();
}
