import { sent, type Caller } from './route.ts';

/** Answers with a file to be saved; the name may hold any letters. */
export function attach(
  call: Pick<Caller, 'response'>,
  name: string,
  type: string,
  body: string | Buffer,
): typeof sent {
  const plain = name.replaceAll(/[^\w.-]+/g, '-');
  call.response
    .type(type)
    .set(
      'Content-Disposition',
      `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
    )
    .send(body);
  return sent;
}
