import type { MediaRelay, Publication, Reel, TrackKind, ViewerOffer, Watched } from '../media/relay';

type Failing = 'publish' | 'moderate' | 'unpublish' | 'record';

/** A relay of plain memory for tests: it keeps what it was told, and says so. It can be made to fail, and to be slow. */
export class StandInRelay implements MediaRelay {
  available = true;
  readonly said: string[] = [];
  /** What each viewer was last told to watch. */
  readonly watched = new Map<string, readonly Watched[]>();
  /** Who is mixed into each line. */
  readonly mixed = new Map<string, readonly string[]>();
  /** Which tracks go on: `member/kind`. */
  readonly open = new Set<string>();
  /** How long every answer takes, ms; and in single rooms. */
  slowMs = 0;
  readonly slowRooms = new Map<string, number>();
  readonly #failures = new Map<Failing, number>();
  readonly #publishing = new Map<string, number>();
  #listeners: ((available: boolean) => void)[] = [];
  #standing: (() => void)[] = [];

  /** The next so many requests of this kind fail, and change nothing. */
  fail(what: Failing, times: number) {
    this.#failures.set(what, times);
  }
  /** How many connections of a member the relay takes media from. */
  publishing = (member: string) => this.#publishing.get(member) ?? 0;

  async #answers(room: string, what?: Failing) {
    const wait = this.slowRooms.get(room) ?? this.slowMs;
    if (wait) await new Promise((resolve) => setTimeout(resolve, wait));
    const left = what ? (this.#failures.get(what) ?? 0) : 0;
    if (left <= 0) return;
    this.#failures.set(what!, left - 1);
    throw new Error(`The relay did not ${what}.`);
  }
  onChange(listener: (available: boolean) => void) {
    this.#listeners.push(listener);
  }
  readonly #voices: Parameters<MediaRelay['onVoice']>[0][] = [];
  onVoice(listener: Parameters<MediaRelay['onVoice']>[0]) {
    this.#voices.push(listener);
  }
  /** Somebody is heard in a room, or is not any more. */
  hear(room: string, publisher: string, heard: boolean) {
    for (const listener of this.#voices) listener(room, publisher, heard);
  }
  lose() {
    this.available = false;
    this.open.clear();
    this.#publishing.clear();
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
  async publish(room: string, member: string) {
    await this.#answers(room, 'publish');
    this.said.push(`publish ${member}`);
    this.#shut(member);
    this.#publishing.set(member, 1);
    const up = new Promise<void>((resolve) => this.#standing.push(resolve));
    return { answer: `answer for ${member}`, up };
  }
  async unpublish(room: string, member: string) {
    await this.#answers(room, 'unpublish');
    this.said.push(`unpublish ${member}`);
    this.#shut(member);
  }
  #shut(member: string) {
    this.#publishing.delete(member);
    for (const track of [...this.open]) if (track.startsWith(`${member}/`)) this.open.delete(track);
  }
  async moderate(room: string, member: string, kind: TrackKind, open: boolean) {
    await this.#answers(room, 'moderate');
    this.said.push(`${open ? 'opens' : 'closes'} ${member} ${kind}`);
    if (open) this.open.add(`${member}/${kind}`);
    else this.open.delete(`${member}/${kind}`);
  }
  async watch(_room: string, viewer: string, publications: readonly Watched[]): Promise<ViewerOffer | null> {
    const before = this.watched.get(viewer) ?? [];
    this.watched.set(viewer, publications);
    const fresh = publications.filter(
      (p) =>
        !before.some(
          (b) => b.publisher === p.publisher && b.number === p.number && b.kinds.join() === p.kinds.join(),
        ),
    );
    return fresh.length ? { sdp: `offer of ${fresh.map((p) => p.publisher).join()}`, streams: [] } : null;
  }
  async answer(viewer: string) {
    this.said.push(`answer of ${viewer}`);
  }
  async unwatch(viewer: string) {
    this.watched.delete(viewer);
  }
  async record(room: string, member: string, reel: Reel | null) {
    await this.#answers(room, 'record');
    this.said.push(reel ? `record ${member}${reel.pictures ? '' : ', sound only'}` : `stop ${member}`);
  }
  async openLine(line: string) {
    this.said.push(`line ${line}`);
    return `answer for ${line}`;
  }
  /** Where each publisher's sound is passed on to: `publisher/port`. */
  readonly passed = new Set<string>();
  async pass(_room: string, publisher: string, port: number) {
    this.passed.add(`${publisher}/${port}`);
    return async () => void this.passed.delete(`${publisher}/${port}`);
  }
  async mix(line: string, _room: string, publications: readonly Publication[]) {
    this.mixed.set(
      line,
      publications.map((p) => p.publisher),
    );
  }
  async play(line: string, file: string) {
    this.said.push(`plays ${file} to ${line}`);
  }
  async closeLine(line: string) {
    this.mixed.delete(line);
    this.said.push(`hangs up ${line}`);
  }
  async stop() {}
}
