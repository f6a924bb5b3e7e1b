import { focusOn, pageHeading } from './useHeadingFocus';

/** How far back one's way is known. */
const STEPS = 40;
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

/** Where one is after what had focus is gone. */
function goOn(trail: readonly Step[], fresh: readonly Element[]): HTMLElement | null {
  let back: HTMLElement | undefined;
  for (const step of [...trail].reverse()) {
    const again = usable(step.element) ? step.element : alike(step.element, step.said)[step.nth];
    if (again && usable(again)) {
      back = again;
      break;
    }
  }
  // What was drawn anew with this change is what one came from: one is back.
  if (back && within(back, fresh)) return back;
  const heading = fresh
    .flatMap((f) => [...(f.matches(HEADING) ? [f] : []), ...f.querySelectorAll<HTMLElement>(HEADING)])
    .find((h) => h.closest('main, [role=dialog]') && usable(h as HTMLElement));
  return (heading as HTMLElement | undefined) ?? back ?? pageHeading();
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
  const took = ({ target }: FocusEvent) => {
    if (!(target instanceof HTMLElement) || target === document.body) return;
    held = true;
    if (trail.at(-1)?.element === target) return;
    const said = say(target);
    const step = { element: target, said, nth: Math.max(0, alike(target, said).indexOf(target)) };
    trail = [...trail.slice(1 - STEPS), step];
  };
  const put = ({ target }: Event) => {
    if (!(target as Element).closest(`${REACHED}, label`)) held = false;
  };
  const changed = (records: MutationRecord[]) => {
    const last = trail.at(-1);
    if (!held || !last || (document.activeElement ?? document.body) !== document.body) return;
    // While it works a button is off: it has focus again when it is on.
    if (last.element.isConnected && !usable(last.element) && last.element.matches(':disabled')) return;
    const added = records.flatMap((r) => [...r.addedNodes]);
    const fresh = added.filter((n): n is Element => n instanceof Element && n.isConnected);
    const next = usable(last.element) ? last.element : goOn(trail, fresh);
    // Who walked on is not led back to what they opened before it.
    const at = trail.findLastIndex(({ element }) => element === next);
    if (at >= 0) trail = trail.slice(0, at + 1);
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
  document.addEventListener('pointerdown', put, true);
  return () => {
    watch.disconnect();
    document.removeEventListener('focusin', took);
    document.removeEventListener('pointerdown', put, true);
  };
}
