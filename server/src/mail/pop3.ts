import Pop3Command from 'node-pop3';

/** One visit to a mailbox by POP3 (RFC 1939), `pop3://` or `pop3s://`. */
export class InboxVisit {
  readonly #box: Pop3Command;

  constructor(address: string) {
    const url = new URL(address);
    const tls = url.protocol === 'pop3s:';
    this.#box = new Pop3Command({
      host: url.hostname,
      port: Number(url.port || (tls ? 995 : 110)),
      user: decodeURIComponent(url.username || 'classes'),
      password: decodeURIComponent(url.password || 'classes'),
      tls,
      timeout: 10_000,
    });
  }

  /** The letters there are: their numbers in this visit, and the ids that stay theirs (§7, UIDL). */
  async list(): Promise<{ number: number; uidl: string }[]> {
    const found = (await this.#box.UIDL()) as [string, string][];
    return found.map(([number, uidl]) => ({ number: Number(number), uidl }));
  }

  /** A letter as it was. The client leaves the dots in that were put before others on the way (§3). */
  async read(number: number): Promise<string> {
    return String(await this.#box.RETR(number)).replace(/^\.\./gm, '.');
  }

  /** Marks a letter: it goes when the visit ends. */
  async remove(number: number): Promise<void> {
    await this.#box.command('DELE', number);
  }

  async end(): Promise<void> {
    await this.#box.QUIT().catch(() => undefined);
  }
}
