import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';

const algorithm = 'aes-256-gcm';
const ivLength = 12;
const tagLength = 16;

/**
 * Encrypts a text with a key of 32 bytes (AES-256-GCM, NIST SP 800-38D).
 *
 * @param bound what the text belongs to: it can be read for that alone
 * @returns the nonce, the tag, and the text encrypted
 */
export function sealed(key: Buffer, text: string, bound: string): Buffer {
  const iv = randomBytes(ivLength);
  const cipher = createCipheriv(algorithm, key, iv).setAAD(Buffer.from(bound));
  const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), body]);
}

/** The text that was encrypted; null where the key is another one, or it belongs to something else. */
export function opened(key: Buffer, box: Buffer, bound: string): string | null {
  if (box.length < ivLength + tagLength) return null;
  try {
    const decipher = createDecipheriv(algorithm, key, box.subarray(0, ivLength))
      .setAAD(Buffer.from(bound))
      .setAuthTag(box.subarray(ivLength, ivLength + tagLength));
    return Buffer.concat([decipher.update(box.subarray(ivLength + tagLength)), decipher.final()]).toString(
      'utf8',
    );
  } catch {
    return null;
  }
}
