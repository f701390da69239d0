import { MessageChannel } from 'node:worker_threads';
import { expect, test } from 'vitest';
import { TakenBack } from '../compute/taken-back';
import type { WindowData } from '../compute/snapshot';
import { createBroker, type Broker } from './broker';
import { sourceOver } from './source';

const never = new Promise<WindowData>(() => undefined);

function aPort(broker: Broker) {
  const { port1, port2 } = new MessageChannel();
  broker.serve(port1);
  return port2;
}

test('a request that ends while another thread reads is not waited for', async () => {
  const broker = createBroker(1e6);
  const reads = aPort(broker);
  void sourceOver(reads)('key', () => never).catch(() => undefined);
  const ended = aPort(broker);
  const waiting = sourceOver(ended)('key', () => never);
  // The broker hears a port in order: when it asks for the second key, it has heard of the first.
  await new Promise<void>((resolve) => {
    void sourceOver(ended)('another key', () => (resolve(), never)).catch(() => undefined);
  });
  ended.close();
  await expect(waiting).rejects.toThrow(TakenBack);
  reads.close();
});
