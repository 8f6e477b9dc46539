import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

export interface ReceivedMail {
  from: string;
  to: string[];
  text: string;
}

/** A mail server that stands in for a real one: it takes what it is given and keeps it (RFC 5321). */
export async function mailServer(): Promise<{
  url: string;
  /** The next mail that has not been asked for yet. */
  next: () => Promise<ReceivedMail>;
  count: () => number;
  end: () => Promise<void>;
}> {
  const kept: ReceivedMail[] = [];
  const waiting: ((mail: ReceivedMail) => void)[] = [];
  let count = 0;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onData: (stream, { envelope }, done) => {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        const from = envelope.mailFrom === false ? '' : envelope.mailFrom.address;
        // Soft line breaks of quoted-printable (RFC 2045, 6.7).
        const text = Buffer.concat(parts).toString('utf8').replaceAll(/=\r\n/g, '').replaceAll('=3D', '=');
        const mail = { from, to: envelope.rcptTo.map(({ address }) => address), text };
        count++;
        const taker = waiting.shift();
        if (taker === undefined) kept.push(mail);
        else taker(mail);
        done();
      });
    },
  });
  await new Promise<void>((open) => server.listen(0, '127.0.0.1', () => open()));
  const { port } = server.server.address() as AddressInfo;
  return {
    url: `smtp://127.0.0.1:${port}`,
    next: async () => kept.shift() ?? new Promise((resolve) => waiting.push(resolve)),
    count: () => count,
    end: () => new Promise((closed) => server.close(() => closed())),
  };
}
