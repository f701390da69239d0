import { endWithProcess } from '../http';
import { createIdeaSource } from './server';

const file = process.env.GATEPOST_IDEAS_FILE;
const port = Number(process.env.GATEPOST_IDEAS_PORT);
if (!file || !port) throw new Error('GATEPOST_IDEAS_FILE and GATEPOST_IDEAS_PORT must be set');

const server = createIdeaSource(file);
server.listen(port, '127.0.0.1', () => console.log(`stand-in idea source on 127.0.0.1:${port}`));
endWithProcess(server);
