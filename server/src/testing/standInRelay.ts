import type { MediaRelay, Publication, TrackKind, ViewerOffer } from '../media/relay';

/** A relay of plain memory for tests: it keeps what it was told, and says so. */
export class StandInRelay implements MediaRelay {
  available = true;
  readonly said: string[] = [];
  /** What each viewer was last told to watch. */
  readonly watched = new Map<string, readonly Publication[]>();
  /** Which tracks go on: `member/kind`. */
  readonly open = new Set<string>();
  #listeners: ((available: boolean) => void)[] = [];
  #standing: (() => void)[] = [];

  onChange(listener: (available: boolean) => void) {
    this.#listeners.push(listener);
  }
  lose() {
    this.available = false;
    this.open.clear();
    for (const listener of this.#listeners) listener(false);
  }
  comeBack() {
    this.available = true;
    for (const listener of this.#listeners) listener(true);
  }
  /** Lets the connections of all publishers stand. */
  stand() {
    for (const resolve of this.#standing.splice(0)) resolve();
  }
  async openRoom(room: string) {
    this.said.push(`open ${room}`);
  }
  async closeRoom(room: string) {
    this.said.push(`close ${room}`);
  }
  async publish(_room: string, member: string) {
    this.said.push(`publish ${member}`);
    const up = new Promise<void>((resolve) => this.#standing.push(resolve));
    return { answer: `answer for ${member}`, up };
  }
  async unpublish(_room: string, member: string) {
    this.said.push(`unpublish ${member}`);
  }
  async moderate(_room: string, member: string, kind: TrackKind, open: boolean) {
    this.said.push(`${open ? 'opens' : 'closes'} ${member} ${kind}`);
    if (open) this.open.add(`${member}/${kind}`);
    else this.open.delete(`${member}/${kind}`);
  }
  async watch(
    _room: string,
    viewer: string,
    publications: readonly Publication[],
  ): Promise<ViewerOffer | null> {
    const before = this.watched.get(viewer) ?? [];
    this.watched.set(viewer, publications);
    const fresh = publications.filter(
      (p) => !before.some((b) => b.member === p.member && b.number === p.number),
    );
    return fresh.length ? { sdp: `offer of ${fresh.map((p) => p.member).join()}`, streams: [] } : null;
  }
  async answer(viewer: string) {
    this.said.push(`answer of ${viewer}`);
  }
  async unwatch(viewer: string) {
    this.watched.delete(viewer);
  }
  async record(_room: string, member: string, base: string | null) {
    this.said.push(base ? `record ${member}` : `stop ${member}`);
  }
  async stop() {}
}
