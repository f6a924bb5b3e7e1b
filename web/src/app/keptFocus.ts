import { focusOn, pageHeading } from './useHeadingFocus';

/** How far back one's way is known. */
const STEPS = 40;
/** So long what comes in the stead of what went may be on its way. */
const PATIENCE_MS = 600;
const REACHED = 'a[href], button, input, select, textarea, summary, [tabindex]';
const HEADING = 'h1, h2, h3, h4';

/** Something that had focus, and how to find what stands in its stead when it was drawn anew. */
interface Step {
  element: HTMLElement;
  said: string;
  /** Its place among those that say the same. */
  nth: number;
}

const say = (e: HTMLElement): string =>
  [
    e.tagName,
    e.getAttribute('role'),
    e.getAttribute('aria-label'),
    (e as HTMLInputElement).labels?.[0]?.textContent,
    e.textContent?.slice(0, 80),
  ].join('|');

const alike = (e: Element, said: string): HTMLElement[] =>
  [...document.querySelectorAll<HTMLElement>(e.tagName)].filter((other) => say(other) === said);

const usable = (e: HTMLElement): boolean =>
  e.isConnected &&
  !e.matches(':disabled, [data-disabled]') &&
  !e.closest('[inert], [aria-hidden=true]') &&
  (e.checkVisibility?.() ?? true);

const within = (e: Node, fresh: readonly Element[]) => fresh.some((f) => f.contains(e));

/** What was drawn with a change, and what of it stands where `gone` stood. */
interface Drawn {
  fresh: readonly Element[];
  instead: readonly Element[];
  /** Where that was. */
  places: Node[];
}

function drawnBy(records: readonly MutationRecord[], gone: HTMLElement, before?: Node[]): Drawn {
  const added = (some: readonly MutationRecord[]) =>
    some.flatMap((r) => [...r.addedNodes]).filter((n): n is Element => n instanceof Element && n.isConnected);
  const lost = records.filter((r) => [...r.removedNodes].some((n) => n.contains(gone)));
  const places = before ?? lost.map((r) => r.target);
  const fresh = added(records);
  return { fresh, places, instead: fresh.filter((f) => places.some((p) => p.contains(f))) };
}

const firstIn = (drawn: readonly Element[], what: string): HTMLElement | undefined =>
  drawn
    .flatMap((f) => [...(f.matches(what) ? [f] : []), ...f.querySelectorAll(what)])
    .find((e): e is HTMLElement => e instanceof HTMLElement && usable(e));

/** Where one is after what had focus is gone; `later` where what comes in its stead may be on its way. */
function goOn(trail: readonly Step[], { fresh, instead }: Drawn): { next: HTMLElement | null; later?: true } {
  let back: HTMLElement | undefined;
  for (const step of [...trail].reverse()) {
    const again = usable(step.element) ? step.element : alike(step.element, step.said)[step.nth];
    if (again && usable(again)) {
      back = again;
      break;
    }
  }
  // What was drawn anew with this change is what one came from: one is back.
  if (back && within(back, fresh)) return { next: back };
  const heading = firstIn(fresh, HEADING);
  if (heading?.closest('main, [role=dialog]')) return { next: heading };
  // What one came from stands: it was what one pressed that went, for what came in its stead.
  if (back && back === trail.at(-2)?.element) {
    const opened = firstIn(instead, REACHED);
    return opened ? { next: opened } : { next: back, later: true };
  }
  return { next: back ?? pageHeading() };
}

class FocusKeeper {
  #trail: Step[] = [];
  /** Whether focus is wanted where it was last: not on its way elsewhere, and not put down. */
  #held = false;
  /** What has it was switched off meanwhile. */
  #off = false;
  /** Where something is waited for, and until when by a timer. */
  #waiting: { places: Node[]; late: ReturnType<typeof setTimeout> } | null = null;
  readonly #watch = new MutationObserver((records) => this.#changed(records));

  start() {
    this.#watch.observe(document.body, {
      childList: true,
      subtree: true,
      attributes: true,
      attributeFilter: ['disabled'],
    });
    document.addEventListener('focusin', this.#took);
    document.addEventListener('focusout', this.#left);
    document.addEventListener('pointerdown', this.#pressed, true);
  }

  stop() {
    this.#watch.disconnect();
    this.#waitNoMore();
    document.removeEventListener('focusin', this.#took);
    document.removeEventListener('focusout', this.#left);
    document.removeEventListener('pointerdown', this.#pressed, true);
  }

  readonly #took = ({ target }: FocusEvent) => {
    if (!(target instanceof HTMLElement) || target === document.body) return;
    this.#held = true;
    this.#off = false;
    this.#waitNoMore();
    if (this.#trail.at(-1)?.element === target) return;
    const said = say(target);
    const step = { element: target, said, nth: Math.max(0, alike(target, said).indexOf(target)) };
    this.#trail = [...this.#trail.slice(1 - STEPS), step];
  };

  /** On its way to another it is nowhere for a moment, and what closes then is no loss. */
  readonly #left = ({ relatedTarget }: FocusEvent) => {
    if (relatedTarget) this.#held = false;
  };

  /** Whoever presses beside everything has put it down. */
  readonly #pressed = ({ target }: Event) => {
    if (!(target as Element).closest(`${REACHED}, label`)) this.#putDown();
  };

  #putDown() {
    this.#held = false;
    this.#waitNoMore();
  }

  #waitNoMore() {
    clearTimeout(this.#waiting?.late);
    this.#waiting = null;
  }

  #changed(records: readonly MutationRecord[]) {
    const last = this.#trail.at(-1)?.element;
    if (!this.#held || !last) return;
    this.#off ||= last.isConnected && last.matches(':disabled');
    if ((document.activeElement ?? document.body) !== document.body) return;
    if (!usable(last)) {
      // While it works a button is off: it has focus again when it is on.
      if (!this.#off || !last.isConnected) this.#lost(records, last);
    } else if (this.#off) last.focus();
    // There still, and left: put down, as by a phone whose keyboard is sent away.
    else this.#putDown();
  }

  #lost(records: readonly MutationRecord[], last: HTMLElement) {
    const drawn = drawnBy(records, last, this.#waiting?.places);
    const { next, later } = goOn(this.#trail, drawn);
    if (later) {
      const late = () => setTimeout(() => this.#held && focusOn(next), PATIENCE_MS);
      this.#waiting ??= { places: drawn.places, late: late() };
      return;
    }
    // Back where one came from, what lay between is forgotten.
    if (next && within(next, drawn.fresh)) {
      const at = this.#trail.findLastIndex(({ said }) => said === say(next));
      if (at >= 0) this.#trail = this.#trail.slice(0, at);
    }
    focusOn(next);
  }
}

/**
 * Focus is never lost to the page. When what has it goes away, it goes to the heading of what came in its stead; where
 * that is where one was before (an editor closed, a row drawn anew), back to what one came from. One keeper serves every
 * page: editors and dialogs need no code of their own for the way back. Gives what ends it.
 */
export function keepFocus(): () => void {
  const keeper = new FocusKeeper();
  keeper.start();
  return () => keeper.stop();
}
