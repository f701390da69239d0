import { endWithProcess } from '../http';
import { connectStandin } from './database';
import { createPlatformServer } from './server';

const url = process.env.GATEPOST_DATABASE_URL;
const port = Number(process.env.GATEPOST_PLATFORM_PORT);
if (!url || !port) throw new Error('GATEPOST_DATABASE_URL and GATEPOST_PLATFORM_PORT must be set');

const db = connectStandin(url);
const server = createPlatformServer(db);
server.listen(port, '127.0.0.1', () => console.log(`stand-in ad platform on 127.0.0.1:${port}`));

endWithProcess(server, () => db.destroy());
