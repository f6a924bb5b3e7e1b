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

/**
 * Focus is never lost to the page. When what has it goes away, it goes to the heading of what came in its stead; where
 * that is where one was before (an editor closed, a row drawn anew), back to what one came from. Whoever clicks beside
 * everything has put it down. One keeper serves every page: editors and dialogs need no code of their own for the way
 * back. Gives what ends it.
 */
export function keepFocus(): () => void {
  let trail: Step[] = [];
  let held = false;
  /** Where something is waited for, and until when by a timer. */
  let waiting: { places: Node[]; late: ReturnType<typeof setTimeout> } | null = null;
  const waitNoMore = () => {
    clearTimeout(waiting?.late);
    waiting = null;
  };
  const took = ({ target }: FocusEvent) => {
    if (!(target instanceof HTMLElement) || target === document.body) return;
    held = true;
    waitNoMore();
    if (trail.at(-1)?.element === target) return;
    const said = say(target);
    const step = { element: target, said, nth: Math.max(0, alike(target, said).indexOf(target)) };
    trail = [...trail.slice(1 - STEPS), step];
  };
  // On its way to another it is nowhere for a moment, and what closes then is no loss.
  const leaves = ({ relatedTarget }: FocusEvent) => {
    if (relatedTarget) held = false;
  };
  const put = ({ target }: Event) => {
    if ((target as Element).closest(`${REACHED}, label`)) return;
    held = false;
    waitNoMore();
  };
  const changed = (records: MutationRecord[]) => {
    const last = trail.at(-1);
    if (!held || !last || (document.activeElement ?? document.body) !== document.body) return;
    // While it works a button is off: it has focus again when it is on.
    if (last.element.isConnected && !usable(last.element) && last.element.matches(':disabled')) return;
    if (usable(last.element)) return last.element.focus();
    const drawn = drawnBy(records, last.element, waiting?.places);
    const { next, later } = goOn(trail, drawn);
    if (later) {
      waiting ??= { places: drawn.places, late: setTimeout(() => held && focusOn(next), PATIENCE_MS) };
      return;
    }
    // Back where one came from, what lay between is forgotten.
    if (next && within(next, drawn.fresh)) {
      const at = trail.findLastIndex(({ said }) => said === say(next));
      if (at >= 0) trail = trail.slice(0, at);
    }
    focusOn(next);
  };
  const watch = new MutationObserver(changed);
  watch.observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['disabled'],
  });
  document.addEventListener('focusin', took);
  document.addEventListener('focusout', leaves);
  document.addEventListener('pointerdown', put, true);
  return () => {
    watch.disconnect();
    waitNoMore();
    document.removeEventListener('focusin', took);
    document.removeEventListener('focusout', leaves);
    document.removeEventListener('pointerdown', put, true);
  };
}
