import { watch } from './steps/watcher';

/** Runs a program and starts it again when it falls: `node dist/watch.mjs PROGRAM ARGUMENTS`. */
watch(process.argv.slice(2));
