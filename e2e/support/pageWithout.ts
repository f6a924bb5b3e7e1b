import { RoomConnection, type RoomView } from '../../web/src/room/live/connection';
import type { RoomCommand } from '@nimble-bell/core/room';

/** What a page asks of the room, and what became of it. */
export interface Asked {
  command: RoomCommand;
  outcome: Promise<{ ok: boolean }>;
}

/** A page's own tie to a room, without a browser around it: the connection that the product's pages have. */
export class PageWithout {
  readonly connection: RoomConnection;

  /** `origin` is the server, or proxy, that the page was loaded from. */
  constructor(
    readonly link: string,
    session: string,
    origin: string,
  ) {
    // The connection takes the address of its page, as in a browser.
    Object.assign(globalThis, { location: new URL(origin) });
    this.connection = new RoomConnection(session, link.replace('/in/', ''));
    this.connection.open();
  }
  get view(): RoomView {
    return this.connection.view;
  }
  do(command: RoomCommand) {
    return this.connection.command(command);
  }
  /** Waits until the page is in the room, and gives how long that took, ms. */
  async untilIn(within = 10_000): Promise<number> {
    const began = Date.now();
    while (this.view.status !== 'in') {
      if (Date.now() - began > within || this.view.status === 'refused')
        throw new Error(`The page is ${this.view.status} after ${within} ms: ${this.view.refusal}`);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    return Date.now() - began;
  }
  close() {
    this.connection.close();
  }
}
