import type { Place } from '@nimble-bell/core/room';
import type { Captioner, Heard, Listener } from './captioner';

/** What is said in a class by the script, a line a sentence. */
const SCRIPT: readonly string[] = [
  'Good evening, everybody.',
  'Today we look at how fast the water runs in the harbour.',
  'Take the height at high water, and the height at low water.',
  'The difference between them is the range.',
  'In the first hour the water falls by a twelfth of it.',
  'In the second hour by two twelfths, in the third by three.',
  'Where the chart says two fathoms, it means at the lowest tide.',
  'So what stands over the bar is more, nearly always.',
  'Is that clear so far?',
  'Then let us work one out together.',
];

/** As fast as one speaks, ms a word. */
const WORD_MS = 330;

/**
 * A captioner that hears nothing: while somebody is heard it says the script, a word at a time, and is silent with
 * them. Each class has it from the beginning, and each table.
 */
export const scripted: Captioner = {
  about: 'A stand-in that hears nothing: while somebody speaks, it writes down a script.',
  listen: (_session, told) => new Readings(told),
};

class Readings implements Listener {
  readonly #places = new Map<Place, Reading>();

  constructor(readonly told: (heard: Heard) => void) {}

  voice(publisher: string, place: Place, heard: boolean) {
    let reading = this.#places.get(place);
    if (!reading) this.#places.set(place, (reading = new Reading(this.told)));
    reading.voice(publisher, heard);
  }
  gone(publisher: string) {
    for (const reading of this.#places.values()) reading.gone(publisher);
  }
  close() {
    for (const reading of this.#places.values()) reading.close();
  }
}

/** A breath is no end of what one says, ms. */
const BREATH_MS = 1200;

/** What is said in one place. */
class Reading {
  /** Who is heard, whoever began first before the others; with the end of their breath, where they draw one. */
  readonly #speaking = new Map<string, NodeJS.Timeout | null>();
  #line = 0;
  #words = 0;
  #timer: NodeJS.Timeout | null = null;

  constructor(readonly told: (heard: Heard) => void) {}

  voice(publisher: string, heard: boolean) {
    const breath = this.#speaking.get(publisher);
    if (breath) clearTimeout(breath);
    if (heard) {
      this.#speaking.set(publisher, null);
      this.#timer ??= setInterval(() => this.#next(), WORD_MS);
    } else if (breath !== undefined)
      this.#speaking.set(
        publisher,
        setTimeout(() => this.#silent(publisher), BREATH_MS),
      );
  }

  gone(publisher: string) {
    const breath = this.#speaking.get(publisher);
    if (breath === undefined) return;
    if (breath) clearTimeout(breath);
    if ([...this.#speaking.keys()][0] === publisher) this.#words = 0;
    this.#speaking.delete(publisher);
    if (!this.#speaking.size) this.close();
  }

  close() {
    if (this.#timer) clearInterval(this.#timer);
    this.#timer = null;
    for (const breath of this.#speaking.values()) if (breath) clearTimeout(breath);
    this.#speaking.clear();
  }

  /** What was begun by whoever is silent now is as much as they said. */
  #silent(publisher: string) {
    if ([...this.#speaking.keys()][0] === publisher) this.#ends(publisher);
    this.#speaking.delete(publisher);
    if (!this.#speaking.size) this.close();
  }

  /** One more word of whoever began to speak first, unless they draw breath. */
  #next() {
    const [first] = this.#speaking;
    if (!first || first[1]) return;
    const words = SCRIPT[this.#line]!.split(' ');
    this.#words++;
    if (this.#words >= words.length) this.#ends(first[0]);
    else this.told({ publisher: first[0], text: words.slice(0, this.#words).join(' '), whole: false });
  }

  #ends(publisher: string) {
    if (!this.#words) return;
    const text = SCRIPT[this.#line]!.split(' ').slice(0, this.#words).join(' ');
    this.#words = 0;
    this.#line = (this.#line + 1) % SCRIPT.length;
    this.told({ publisher, text, whole: true });
  }
}
