import { Popover } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { SIGN_WORDS } from '@nimble-bell/core/room';
import { useInside, useMay, type Inside } from '../live/useRoom';
import classes from '../desk/desk.module.css';
import { SignMark } from './SignMark';

// Made when one first gives one.
const SignChoice = lazy(() => import('./SignChoice'));

const select = ({ room, info }: Inside) => ({ sign: room.signs[info.me.member]?.sign ?? null });

/** One's own sign: what one says without a word, and what can be said. */
export function SignButton() {
  const { sign } = useInside(select);
  const { allowed } = useMay('react');
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="top" withArrow shadow="md" trapFocus returnFocus>
      <Popover.Target>
        <button
          type="button"
          className={classes.deskButton}
          data-act="sign"
          aria-pressed={sign !== null}
          aria-label={sign ? `Your sign: ${SIGN_WORDS[sign]}` : 'Give a sign'}
          data-closed={!allowed && !sign}
          onClick={() => setOpen(!open)}
        >
          <SignMark sign={sign ?? 'withYou'} size={21} />
          {sign ? SIGN_WORDS[sign] : 'Sign'}
        </button>
      </Popover.Target>
      <Popover.Dropdown p={6}>
        <Suspense>{open && <SignChoice given={sign} close={() => setOpen(false)} />}</Suspense>
      </Popover.Dropdown>
    </Popover>
  );
}
