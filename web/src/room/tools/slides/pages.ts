import type { At } from '@nimble-bell/core/board';
import type { Deck } from '@nimble-bell/core/room';

/** A page, ready to be drawn. */
export interface Drawable {
  /** Its height, in widths. */
  ratio: number;
  /** What is read on it, as far as it says. */
  text: string;
  draw: (canvas: HTMLCanvasElement, at: At) => { done: Promise<unknown>; cancel: () => void };
  close: () => void;
}

async function readPicture(data: ArrayBuffer): Promise<Drawable> {
  const bitmap = await createImageBitmap(new Blob([data]));
  return {
    ratio: bitmap.height / bitmap.width,
    text: '',
    draw: (canvas, { width, left, top }) => {
      const context = canvas.getContext('2d')!;
      context.clearRect(0, 0, canvas.width, canvas.height);
      context.imageSmoothingQuality = 'high';
      context.drawImage(bitmap, left, top, width, (width * bitmap.height) / bitmap.width);
      return { done: Promise.resolve(), cancel: () => {} };
    },
    close: () => bitmap.close(),
  };
}

/** So many pages are kept as they were read. */
const MOST = 12;

/** Pages as this page of the product has them: each had once, and the one after it before it is needed. */
export class Pages {
  readonly #known = new Map<string, Promise<Drawable>>();

  /** `load` has the bytes of a page of a deck. */
  constructor(readonly load: (deck: string, page: number) => Promise<ArrayBuffer>) {}

  get(deck: Pick<Deck, 'id' | 'kind'>, page: number): Promise<Drawable> {
    const key = `${deck.id} ${page}`;
    const known = this.#known.get(key) ?? this.#read(deck, page);
    this.#known.delete(key);
    this.#known.set(key, known);
    known.catch(() => this.#known.delete(key));
    this.#letGo();
    return known;
  }

  /** Everything is let go of. */
  close() {
    for (const one of this.#known.values())
      one.then(
        (page) => page.close(),
        () => {},
      );
    this.#known.clear();
  }

  async #read({ id, kind }: Pick<Deck, 'id' | 'kind'>, page: number): Promise<Drawable> {
    const data = await this.load(id, page);
    return kind === 'picture' ? readPicture(data) : (await import('./pdf')).readPdf(data);
  }

  #letGo() {
    while (this.#known.size > MOST) {
      const [key, one] = this.#known.entries().next().value!;
      this.#known.delete(key);
      one.then(
        (page) => page.close(),
        () => {},
      );
    }
  }
}

/** What the server answers with a file; its refusal in its words. */
export async function bytesOf(path: string, link: string | null): Promise<ArrayBuffer> {
  const answer = await fetch(path, link ? { headers: { authorization: `Link ${link}` } } : {});
  if (answer.ok) return answer.arrayBuffer();
  const said = (await answer.json().catch(() => null)) as { error?: { message?: string } } | null;
  throw new Error(said?.error?.message ?? 'The page cannot be had for the moment.');
}
