import pino, { type Logger } from 'pino';

/**
 * The log of a process: a line of JSON for each thing that happened, with the time as people write it. What it tells of bears the
 * same names everywhere: `request`, `route`, `account`, `person`, `task`.
 * @param name of the process
 */
export function logOf(name: string): Logger {
  return pino({
    name,
    level: process.env.NODE_ENV === 'test' ? 'silent' : 'info',
    timestamp: pino.stdTimeFunctions.isoTime,
    formatters: { level: (level) => ({ level }) },
    serializers: { error: pino.stdSerializers.err },
  });
}

export const webLog = logOf('web');
