import net from 'node:net';

/** Whether something answers on a port of loopback. */
export function isPortTaken(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = net.connect({ port, host: '127.0.0.1' });
    socket.setTimeout(1_000);
    const answer = (taken: boolean) => () => {
      socket.destroy();
      resolve(taken);
    };
    socket.once('connect', answer(true));
    socket.once('error', answer(false));
    socket.once('timeout', answer(true));
  });
}
