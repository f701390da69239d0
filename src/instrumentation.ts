/** Runs once when the web application starts: the first person who opens Sift should not wait for its snapshot. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { warmUp } = await import('@/server/use-cases/warm-up');
  const { webDeps } = await import('@/server/container');
  await warmUp(webDeps()).catch((error: unknown) =>
    console.error('warm-up failed; the first page will be slower', error),
  );
}
