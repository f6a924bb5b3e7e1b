import { focusOn, pageHeading } from './useHeadingFocus';

/** How far back one’s way is known. */
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

/** How many openers are remembered, one in what another opened. */
const DEEP = 8;

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

const again = ({ element, said, nth }: Step): HTMLElement | undefined =>
  usable(element) ? element : alike(element, said)[nth];

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

/** Where one goes after what had focus is gone: back to where one was, or on to what was opened, now or on its way. */
interface Way {
  next: HTMLElement | null;
  how: 'back' | 'on' | 'later';
}

function goOn(trail: readonly Step[], { fresh, instead }: Drawn): Way {
  let back: HTMLElement | undefined;
  for (const step of [...trail].reverse()) {
    const stands = again(step);
    if (stands && usable(stands)) {
      back = stands;
      break;
    }
  }
  // What was drawn anew with this change is what one came from: one is back.
  if (back && within(back, fresh)) return { next: back, how: 'back' };
  const heading = firstIn(fresh, HEADING);
  if (heading?.closest('main, [role=dialog]')) return { next: heading, how: 'on' };
  // What one came from stands: it was what one pressed that went, for what came in its stead.
  if (back && back === trail.at(-2)?.element) {
    const opened = firstIn(instead, REACHED);
    return opened ? { next: opened, how: 'on' } : { next: back, how: 'later' };
  }
  return { next: back ?? pageHeading(), how: back ? 'back' : 'on' };
}

class FocusKeeper {
  #trail: Step[] = [];
  /** What opened something in its own stead, however far one walked in that since. */
  #openers: (Step & { at: string })[] = [];
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
    const step = this.#trail.at(-1);
    if (!this.#held || !step) return;
    const last = step.element;
    this.#off ||= last.isConnected && last.matches(':disabled');
    if ((document.activeElement ?? document.body) !== document.body) return;
    if (!usable(last)) {
      // While it works a button is off: it has focus again when it is on.
      if (!this.#off || !last.isConnected) this.#lost(records, step);
    } else if (this.#off) last.focus();
    // There still, and left: put down, as by a phone whose keyboard is sent away.
    else this.#putDown();
  }

  #lost(records: readonly MutationRecord[], step: Step) {
    const drawn = drawnBy(records, step.element, this.#waiting?.places);
    const { next, how } = this.#opener(drawn) ?? goOn(this.#trail, drawn);
    if (how === 'later') {
      const late = () => {
        if (!this.#held) return;
        // On a slow line it may come all the same.
        this.#opened(step);
        focusOn(next);
      };
      this.#waiting ??= { places: drawn.places, late: setTimeout(late, PATIENCE_MS) };
      return;
    }
    if (how === 'on') this.#opened(step);
    else if (next && within(next, drawn.fresh)) {
      // What lay between is forgotten.
      const at = this.#trail.findLastIndex(({ said }) => said === say(next));
      if (at >= 0) this.#trail = this.#trail.slice(0, at);
    }
    focusOn(next);
  }

  #opened(step: Step) {
    this.#openers = [...this.#openers.slice(1 - DEEP), { ...step, at: location.pathname }];
  }

  /** What opened what is gone now, drawn anew: one is back there, wherever one walked since. */
  #opener({ fresh }: Drawn): Way | null {
    const found = this.#openers.findLastIndex(({ at, ...step }) => {
      const stands = at === location.pathname ? again(step) : undefined;
      return stands && usable(stands) && within(stands, fresh);
    });
    if (found < 0) return null;
    const next = again(this.#openers[found]!) ?? null;
    this.#openers = this.#openers.slice(0, found);
    return { next, how: 'back' };
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
