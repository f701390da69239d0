import { endWithProcess } from '../http';
import { createInbox } from './server';

const [port, mailPort] = [
  Number(process.env.GATEPOST_INBOX_PORT),
  Number(process.env.GATEPOST_INBOX_MAIL_PORT),
];
if (!port || !mailPort) throw new Error('GATEPOST_INBOX_PORT and GATEPOST_INBOX_MAIL_PORT must be set');

const { http, smtp } = createInbox();
smtp.listen(mailPort, '127.0.0.1');
http.listen(port, '127.0.0.1', () => console.log(`stand-in inbox on 127.0.0.1:${port}, mail on ${mailPort}`));
endWithProcess(http);
