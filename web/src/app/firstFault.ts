const FIELD = 'input, select, textarea, button, [tabindex]';
/** The server may be asked before it is known what is wrong. */
const PATIENCE_MS = 10_000;

/** The first field of a form that is wrong, or the first of a group of fields that is wrong together. */
function faultyField(form: HTMLElement): HTMLElement | null {
  const found = form.querySelector<HTMLElement>('[aria-invalid=true], [data-fault]');
  return found?.hasAttribute('data-fault') ? found.querySelector<HTMLElement>(FIELD) : (found ?? null);
}

/**
 * Whoever sends a form that is not right comes to its first field that is wrong, whether the page or the server says so;
 * not who has gone on to another field meanwhile. One listener for every form. Gives what ends it.
 */
export function leadToFirstFault(): () => void {
  let stop = () => {};
  const sent = (event: Event) => {
    stop();
    const form = event.target as HTMLElement;
    const from = document.activeElement;
    const look = () => {
      const field = faultyField(form);
      if (!field) return;
      const { activeElement: at } = document;
      if (at === from || at === document.body || at === null) field.focus();
      stop();
    };
    const watch = new MutationObserver(look);
    watch.observe(form, { attributes: true, attributeFilter: ['aria-invalid', 'data-fault'], subtree: true });
    const late = setTimeout(() => stop(), PATIENCE_MS);
    stop = () => {
      watch.disconnect();
      clearTimeout(late);
      stop = () => {};
    };
    // What was wrong before is wrong still: nothing of it changes.
    queueMicrotask(look);
  };
  document.addEventListener('submit', sent, true);
  return () => {
    stop();
    document.removeEventListener('submit', sent, true);
  };
}
