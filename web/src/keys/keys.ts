/** Something that a key does, wherever it is declared. */
export interface KeyAct {
  id: string;
  /** The key as `KeyboardEvent.key` gives it, small letters. */
  usual: string;
  words: string;
  who: 'teaching' | 'students' | 'anyone';
}

/** Every key of the room. One key, one act: nothing acts on a key that does not stand here. */
export const KEYS = {
  keys: { id: 'keys', usual: '?', words: 'Show these keys', who: 'anyone' },
  hush: { id: 'hush', usual: 'h', words: 'Hush, and lift it again', who: 'teaching' },
  question: { id: 'question', usual: 'q', words: 'Open writing for one question', who: 'teaching' },
  ask: { id: 'ask', usual: 'a', words: 'Ask the class', who: 'teaching' },
  time: { id: 'time', usual: 't', words: 'A time for everybody', who: 'teaching' },
  pick: { id: 'pick', usual: 'o', words: 'Pick one of them by lot', who: 'teaching' },
  captions: { id: 'captions', usual: 'i', words: 'Who writes captions', who: 'teaching' },
  film: { id: 'film', usual: 'v', words: 'Something to watch together', who: 'teaching' },
  tables: { id: 'tables', usual: 'd', words: 'To small tables, and back', who: 'teaching' },
  cue: { id: 'cue', usual: 'n', words: 'Begin the next part of the run sheet', who: 'teaching' },
  pageBefore: { id: 'pageBefore', usual: ',', words: 'The page before, for everybody', who: 'teaching' },
  pageAfter: { id: 'pageAfter', usual: '.', words: 'The next page, for everybody', who: 'teaching' },
  floor: {
    id: 'floor',
    usual: 'f',
    words: 'Give the floor to the first hand, and take it back',
    who: 'teaching',
  },
  mute: { id: 'mute', usual: 'x', words: 'Mute everyone', who: 'teaching' },
  silence: { id: 'silence', usual: 'z', words: 'Mute everyone, by hand from now', who: 'teaching' },
  pause: { id: 'pause', usual: 'p', words: 'Pause the recording, and go on', who: 'teaching' },
  begin: { id: 'begin', usual: 'b', words: 'Ring in', who: 'teaching' },
  end: { id: 'end', usual: 'e', words: 'Dismiss the class', who: 'teaching' },
  lock: { id: 'lock', usual: 'l', words: 'Lock the door, and unlock it', who: 'teaching' },
  hand: { id: 'hand', usual: 'r', words: 'Raise your hand, and lower it', who: 'students' },
  sign: { id: 'sign', usual: 'g', words: 'Give a sign', who: 'students' },
  microphone: { id: 'microphone', usual: 'm', words: 'Microphone on or off', who: 'anyone' },
  camera: { id: 'camera', usual: 'c', words: 'Camera on or off', who: 'anyone' },
  write: { id: 'write', usual: 'w', words: 'Go to where you write', who: 'anyone' },
  seats: { id: 'seats', usual: 's', words: 'Go to the seats', who: 'anyone' },
} as const satisfies Record<string, KeyAct>;
export type KeyId = keyof typeof KEYS;

/** A person's own: another key, or null for none. What is not in it is as usual. */
export type OwnKeys = Partial<Record<string, string | null>>;

export const keyOf = (id: KeyId, own: OwnKeys): string | null => {
  const chosen = own[id];
  return chosen === undefined ? KEYS[id].usual : chosen;
};

/** Which act a key is for; the first by order of the table where a person gave one key to two. */
export const actOf = (key: string, own: OwnKeys): KeyId | null =>
  (Object.keys(KEYS) as KeyId[]).find((id) => keyOf(id, own) === key.toLowerCase()) ?? null;

/** Why a key cannot be chosen for an act; null where it can. */
export function keyFault(id: KeyId, key: string, own: OwnKeys): string | null {
  if ([...key].length !== 1 || /\s/.test(key)) return 'Choose one letter, digit or sign.';
  const other = (Object.keys(KEYS) as KeyId[]).find((x) => x !== id && keyOf(x, own) === key.toLowerCase());
  return other ? `This key is for: ${KEYS[other].words.toLowerCase()}.` : null;
}

/** Whether a press belongs to something else: one types, a dialog or a menu is open, a radio or a list has it. */
export function isTaken(
  event: Pick<KeyboardEvent, 'ctrlKey' | 'metaKey' | 'altKey' | 'defaultPrevented' | 'target'>,
): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return true;
  const at = event.target instanceof Element ? event.target : null;
  if (
    at?.closest(
      'input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable=true], [role=textbox], [role=combobox]',
    )
  )
    return true;
  // Whoever is in a menu or a list has focus in it; a dialog has the page to itself. One that is closing is none.
  if (at?.closest('[role=menu], [role=listbox], [role=dialog], [role=alertdialog]')) return true;
  const dialogs = document.querySelectorAll('[aria-modal=true]');
  return [...dialogs].some((e) => e.checkVisibility?.() ?? true);
}
