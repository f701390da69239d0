import type { MessagePort } from 'node:worker_threads';
import type { DataSource, SharedData } from '../compute/snapshots';
import { TakenBack } from '../compute/taken-back';
import type { FromBroker, ToBroker } from './broker';

/**
 * Columns that another thread has read are taken as they are; what no one has is read, and offered to all. A request
 * that ends before it was told leaves no one waiting: who shares its snapshot asks again.
 * @param port leads to the broker of snapshots
 */
export function sourceOver(port: MessagePort): DataSource {
  const say = (message: ToBroker) => port.postMessage(message);
  return <T extends SharedData>(key: string, load: () => Promise<T>) =>
    new Promise<T>((resolve, reject) => {
      const onClose = () => reject(new TakenBack('The question ended.'));
      const hear = (message: FromBroker) => {
        if (message.kind === 'cancel' || message.key !== key) return;
        port.off('message', hear);
        port.off('close', onClose);
        if (message.kind === 'here') return resolve(message.data as T); // what the key names
        load().then(
          (data) => {
            say({ kind: 'built', key, data });
            resolve(data);
          },
          (error: unknown) => {
            say({ kind: 'failed', key });
            reject(error as Error);
          },
        );
      };
      port.on('message', hear);
      port.on('close', onClose);
      say({ kind: 'want', key });
    });
}
