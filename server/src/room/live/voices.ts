/** Whoever goes on within this has not stopped: a breath, a page that is turned, ms. */
const BREATH_MS = 5000;

interface Voice {
  /** Since when they speak, an instant. */
  since: number;
  /** When they were heard last; null while they are. */
  until: number | null;
}

/** Who is heard in each room, and since when: by the relay, which hears them all. Nothing of it is kept. */
export class Voices {
  readonly #rooms = new Map<string, Map<string, Voice>>();

  /** Somebody is heard, or no more; gives since when they speak, null where they do not. */
  heed(session: string, member: string, heard: boolean, now: number): number | null {
    const voices = this.#rooms.get(session) ?? new Map<string, Voice>();
    const known = voices.get(member);
    for (const [who, { until }] of voices) if (until !== null && now - until > BREATH_MS) voices.delete(who);
    if (heard) voices.set(member, { since: voices.get(member)?.since ?? now, until: null });
    else if (known?.until === null) voices.set(member, { since: known.since, until: now });
    if (voices.size) this.#rooms.set(session, voices);
    else this.#rooms.delete(session);
    return heard ? voices.get(member)!.since : null;
  }

  /** Somebody's microphone is another from now on: what was said before it is over. Gives whether they were heard. */
  anew(session: string, member: string): boolean {
    const voices = this.#rooms.get(session);
    const heard = voices?.get(member)?.until === null;
    voices?.delete(member);
    return heard;
  }

  /** Who is heard now, each with since when. */
  in(session: string): [member: string, since: number][] {
    return [...(this.#rooms.get(session) ?? [])].flatMap(([member, { since, until }]) =>
      until === null ? [[member, since]] : [],
    );
  }
}
