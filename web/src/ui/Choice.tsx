import { useRef, type KeyboardEvent, type ReactNode } from 'react';
import { ARROWS } from './arrows';
import classes from './choice.module.css';

export interface Option<T extends string> {
  value: T;
  /** What it is called; `face` is shown in its place where there is one. */
  label: string;
  face?: ReactNode;
}

interface ChoiceProps<T extends string> {
  label: string;
  options: readonly Option<T>[];
  value: T | null;
  onChange: (value: T) => void;
  disabled?: boolean;
  /** What is gone through by arrow is chosen by it; where choosing has consequences, only by Space or Enter. */
  follows?: boolean;
  /** Each option's name begins with the group's, for whoever meets it alone. */
  wholeNames?: boolean;
  /** In place of our own: `group` and each `option`, which says `data-value`. */
  styles?: { group?: string; option?: string };
}

/** One of a few, side by side: one stop of the Tab key, arrows inside (ARIA Authoring Practices, radio group). */
export function Choice<T extends string>(props: ChoiceProps<T>) {
  const {
    label,
    options,
    value,
    onChange,
    disabled = false,
    follows = true,
    wholeNames = false,
    styles,
  } = props;
  const group = useRef<HTMLDivElement>(null);
  const chosen = options.findIndex((o) => o.value === value);
  const onKey = (e: KeyboardEvent) => {
    const step = ARROWS[e.key];
    if (!step || disabled) return;
    e.preventDefault();
    const buttons = [...group.current!.querySelectorAll<HTMLElement>('[role=radio]')];
    const at = buttons.indexOf(e.target as HTMLElement);
    const next = (at + step + options.length) % options.length;
    buttons[next]!.focus();
    if (follows) onChange(options[next]!.value);
  };
  return (
    <div
      ref={group}
      role="radiogroup"
      aria-label={label}
      aria-disabled={disabled}
      className={styles?.group ?? classes.choice}
      onKeyDown={onKey}
    >
      {options.map((o, i) => (
        <button
          key={o.value}
          type="button"
          role="radio"
          aria-checked={o.value === value}
          aria-label={wholeNames ? `${label}: ${o.label}` : o.label}
          title={o.face ? o.label : undefined}
          tabIndex={i === Math.max(0, chosen) ? 0 : -1}
          disabled={disabled}
          className={styles?.option ?? classes.option}
          data-value={o.value}
          onClick={() => onChange(o.value)}
        >
          {o.face ?? o.label}
        </button>
      ))}
    </div>
  );
}
