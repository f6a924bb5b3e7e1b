import type { ComponentPropsWithRef, ReactNode } from 'react';
import { keyOf, type KeyId } from '../../keys/keys';
import { useWays } from '../../ways/useWays';
import classes from './act.module.css';

interface Props extends ComponentPropsWithRef<'button'> {
  act: KeyId;
  /** Of what is on or off; not of what opens something. */
  pressed?: boolean;
  disabled?: boolean;
  /** In place of its usual look. */
  className?: string | undefined;
  onClick: () => void;
  children: ReactNode;
  /** In place of the key, while something is more pressing. */
  mark?: ReactNode;
}

/** A button of the room that a key presses as well, and which shows that key: the person's own, or the usual one. */
export function ActButton({
  act,
  pressed,
  disabled = false,
  className = classes.act,
  onClick,
  children,
  mark,
  ...rest
}: Props) {
  const key = keyOf(act, useWays().ways.keys)?.toUpperCase();
  return (
    <button
      {...rest}
      type="button"
      className={className}
      data-act={act}
      aria-keyshortcuts={key}
      aria-pressed={pressed}
      disabled={disabled}
      onClick={onClick}
    >
      <span>{children}</span>
      {mark || (key && <kbd className={classes.key}>{key}</kbd>)}
    </button>
  );
}
