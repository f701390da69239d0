import { createHash } from 'node:crypto';
import { request as send } from 'node:http';
import { gzipSync } from 'node:zlib';
import { expect, test } from '@playwright/test';

/** Files over real HTTP: whole at any size, or refused. */
const BASE = new URL(process.env.GATEPOST_TEST_URL ?? 'http://127.0.0.1');
const MEGABYTE = 1024 ** 2;

/** A report of 64 MB, a row as long as another, with all its clicks. */
function bigReport(): { bytes: Buffer; rows: number } {
  const header = 'Day,Campaign,Ad group,Search term,Clicks,Cost\n';
  const rows: string[] = [];
  for (let size = header.length; size < 64 * MEGABYTE;) {
    const row = `2026-11-01,Hives,Starter,${'long '.repeat(40)}term ${String(rows.length).padStart(7, '0')},1,0.10\n`;
    rows.push(row);
    size += row.length;
  }
  return { bytes: Buffer.from(header + rows.join('')), rows: rows.length };
}

type Answer = { status: number; body: { error?: string; files?: { id: number; sizeBytes: number }[] } };

function put(path: string, body: Buffer, method = 'PUT'): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const headers = { origin: BASE.origin, 'content-length': body.length };
    const sent = send(new URL(path, BASE), { method, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({
          status: response.statusCode ?? 0,
          body: JSON.parse(Buffer.concat(parts).toString()) as Answer['body'],
        }),
      );
    });
    sent.on('error', reject);
    sent.end(body);
  });
}

test('64 MB come in whole, plain and packed, and are read to their last row', async ({ request }) => {
  const { bytes, rows } = bigReport();
  for (const body of [bytes, gzipSync(bytes)]) {
    const { status, body: answer } = await put(
      `/api/larkfell-web/intake?name=big.csv&size=${body.length}`,
      body,
    );
    expect(status).toBe(200);
    const [file] = answer.files!;
    expect(file!.sizeBytes).toBe(body.length);
    // The whole is read by the job process; what it says at the end is the sum over all rows.
    await expect
      .poll(
        async () => {
          const asked = await request.post(`/api/larkfell-web/intake/${file!.id}/reading`, {
            ...{ data: 'null', headers: { origin: BASE.origin, 'content-type': 'application/json' } },
          });
          const { reading, whole } = (await asked.json()) as {
            reading: { rows: number; sums: { clicks: number } };
            whole: unknown;
          };
          return whole === null ? [reading.rows, reading.sums.clicks] : 'still reading';
        },
        { timeout: 120_000 },
      )
      .toEqual([rows, rows]);
  }
});

test('a body that is shorter than the browser announced is refused, and so is a list that is', async () => {
  const bytes = Buffer.from('Day,Search term,Clicks\n2026-11-01,bee hive,3\n');
  const size = bytes.length + 10;
  const report = await put(`/api/larkfell-web/intake?name=cut.csv&size=${size}`, bytes);
  expect(report.status).toBe(400);
  expect(report.body.error).toContain('did not come in whole');
  const list = await put(`/api/larkfell-web/lists/read-file?size=${size}`, bytes, 'POST');
  expect(list.status).toBe(400);
  expect(list.body.error).toContain('did not come in whole');
});

test('a list of 12 MB comes in whole', async () => {
  const lines = Array.from({ length: 400_000 }, (_, i) => `a query that nobody wants ${i}`).join('\n');
  const bytes = Buffer.from(lines);
  expect(bytes.length).toBeGreaterThan(12 * MEGABYTE);
  const { status, body } = await put(`/api/larkfell-web/lists/read-file?size=${bytes.length}`, bytes, 'POST');
  expect(status).toBe(200);
  const [{ text }] = (body as { lists: [{ text: string }] }).lists;
  const digest = (of: string) => createHash('sha256').update(of).digest('hex');
  expect(digest(text)).toBe(digest(lines));
});

test('who is let in is asked where requests pass by the proxy, too', async ({ request }) => {
  const body = { data: 'x', headers: { origin: 'http://elsewhere.example' } };
  expect((await request.put('/api/larkfell-web/intake?name=a', body)).status()).toBe(403);
  expect((await request.post('/api/larkfell-web/lists/read-file', body)).status()).toBe(403);
  const foreign = { headers: { host: 'elsewhere.example' } };
  expect((await request.get('/api/larkfell-web/intake', foreign)).status()).toBe(403);
});
