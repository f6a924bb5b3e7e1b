import { ActionIcon, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { IconMoon, IconSun } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import classes from './frame.module.css';
import { SaidLately } from './Notices';

/** The thin pine bar at the top of every page outside the room. */
export function Bar({ home = '/', children }: { home?: string; children?: ReactNode }) {
  return (
    <header className={classes.bar}>
      <a className="skip-link" href="#content">
        Go to the content
      </a>
      <Link to={home} className={classes.mark} aria-label="Nimble Bell">
        <BellMark />
        <span>Nimble Bell</span>
      </Link>
      {children ?? <span className={classes.grow} />}
      <SaidLately />
      <ThemeSwitch />
    </header>
  );
}

export function BellMark({ size = 22 }: { size?: number }) {
  return (
    <svg viewBox="0 0 32 32" width={size} height={size} aria-hidden>
      <path d="M5 24h20l-3-4c-1-5 0-12-7-12s-6 7-7 12z" fill="#F6E7C4" />
      <path d="M12 26a3 3 0 0 0 6 0z" fill="#C8921F" />
      <path d="M21 7l4-3M24 12l5-1" stroke="#D9AB45" strokeWidth="2.2" strokeLinecap="round" />
    </svg>
  );
}

function ThemeSwitch() {
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme('light') === 'dark';
  return (
    <ActionIcon
      variant="transparent"
      c="pine.1"
      aria-label={dark ? 'Use the light theme' : 'Use the dark theme'}
      onClick={() => setColorScheme(dark ? 'light' : 'dark')}
    >
      {dark ? <IconSun size={18} /> : <IconMoon size={18} />}
    </ActionIcon>
  );
}
