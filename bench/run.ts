import { benchBrowser } from './browser';
import { benchCore } from './core';

/** `npm run bench [-- --quick]`; the browser's part needs the demo running (./gatepost demo). */
async function main(flags: readonly string[]): Promise<void> {
  const quick = flags.includes('--quick');
  const address = `http://127.0.0.1:${process.env.GATEPOST_PORT ?? 4180}`;
  const lines = benchCore(quick);
  const runs = await fetch(`${address}/api/health`).then(
    (answer) => answer.ok,
    () => false,
  );
  if (runs) lines.push(...(await benchBrowser(address, quick)));
  else
    console.log('The demo does not run, so the browser’s part is left out. Start it with ./gatepost demo.');
  console.table(lines);
  console.log(`peak memory of this process: ${Math.round(process.resourceUsage().maxRSS / 1024)} MB`);
  if (lines.some((line) => line.verdict === 'OVER')) process.exitCode = 1;
}

main(process.argv.slice(2)).catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});
