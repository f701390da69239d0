import { createHmac } from 'node:crypto';

const BASE_32 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

/** The six digits that a program for codes shows now, for an address such as `otpauth://totp/…?secret=…` (RFC 6238). */
export function codeOf(uri: string, at = Date.now()): string {
  const secret = new URL(uri).searchParams.get('secret')!;
  const bits = [...secret].map((c) => BASE_32.indexOf(c).toString(2).padStart(5, '0')).join('');
  const key = Buffer.from(bits.match(/.{8}/g)!.map((byte) => parseInt(byte, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)));
  const digest = createHmac('sha1', key).update(counter).digest();
  const number = digest.readUInt32BE(digest.at(-1)! & 15) & 0x7fffffff;
  return String(number % 1_000_000).padStart(6, '0');
}
