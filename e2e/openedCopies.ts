import { createDecipheriv } from 'node:crypto';
import { gunzipSync } from 'node:zlib';
import type { TestApp } from './testApp';

const [IV, TAG] = [12, 16];

/** What is inside the sealed copies of an application: all that its candidates can ever come to read. */
export const openedCopies = (app: TestApp): string =>
  app
    .rows<{ key: string; bytes: Buffer }>('select key, bytes from sealed_copies')
    .map(({ key, bytes }) => {
      const cipher = createDecipheriv('aes-256-gcm', Buffer.from(key, 'base64url'), bytes.subarray(0, IV));
      cipher.setAuthTag(bytes.subarray(-TAG));
      const packed = Buffer.concat([cipher.update(bytes.subarray(IV, -TAG)), cipher.final()]);
      return gunzipSync(packed).toString('utf8');
    })
    .join('\n');
