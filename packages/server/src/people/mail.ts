import nodemailer, { type Transporter } from 'nodemailer';
import type { Logger } from 'pino';

export interface MailOptions {
  /** smtp://… or smtps://…, with name and password where the mail server asks for them. */
  server: string;
  from: string;
  /** The address that people open Visograph at: links in mails begin with it. */
  address: string;
}

/** Sends mail through the mail server of the settings, if there is one. */
export class Mail {
  private readonly transport: Transporter | null;

  constructor(
    private readonly options: MailOptions | null,
    private readonly log: Logger,
  ) {
    const patience = { connectionTimeout: 5000, greetingTimeout: 5000, socketTimeout: 10_000 };
    this.transport =
      options === null
        ? null
        : nodemailer.createTransport({ url: options.server, ...patience, disableFileAccess: true });
  }

  get on(): boolean {
    return this.transport !== null;
  }

  /** Sends a link with what it is for. False where there is no mail server, or it does not take the mail. */
  async sendLink(
    to: string,
    { subject, before, path, after }: { subject: string; before: string; path: string; after: string },
  ): Promise<boolean> {
    if (this.transport === null || this.options === null) return false;
    const { from, address } = this.options;
    const text = `${before}\n\n${address.replace(/\/+$/, '')}${path}\n\n${after}\n`;
    try {
      await this.transport.sendMail({ from, to: { name: '', address: to }, subject, text });
      return true;
    } catch (error) {
      // Neither the link nor the address: a log is read by more people than a mail.
      this.log.warn({ error: error instanceof Error ? error.message : '' }, 'mail was not sent');
      return false;
    }
  }

  close(): void {
    this.transport?.close();
  }
}
