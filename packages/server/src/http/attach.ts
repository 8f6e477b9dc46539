import type { Response } from 'express';

/** Without halves of letters (surrogates), which no header can hold. */
const wellFormed = (text: string): string => text.replaceAll(/\p{Surrogate}/gu, '\uFFFD');

/** Answers with a file to be saved; the name may hold any letters. */
export function attach(response: Response, name: string, type: string, bytes: Uint8Array): void {
  const plain = name.replaceAll(/[^\w.-]+/g, '-');
  response
    .type(type)
    .set(
      'Content-Disposition',
      `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(wellFormed(name))}`,
    )
    .send(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
}
