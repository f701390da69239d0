import { watch } from './steps/watcher';

/** Runs a program and starts it again when it falls: `node dist/watch.mjs LOG PROGRAM ARGUMENTS`. */
const [logFile, ...program] = process.argv.slice(2);
watch(program, { logFile });
