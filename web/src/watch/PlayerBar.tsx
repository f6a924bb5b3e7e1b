import { Button, Group, NativeSelect, Text } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { Film } from './useMedia';
import { lengthWords } from './words';

const SPEEDS = [0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.5, 3] as const;
const KEPT = 'watch-speed';
const STEP_S = 10;

const keptSpeed = (): number => {
  const kept = Number(localStorage.getItem(KEPT));
  return SPEEDS.some((s) => s === kept) ? kept : 1;
};

interface PlayerBarProps {
  film: Film;
  /** Where one went on, ms; null where one began at the beginning. */
  resumed: number | null;
}

/** How fast it is played, and where one went on; its keys. */
export function PlayerBar({ film, resumed }: PlayerBarProps) {
  const [speed, setSpeed] = useState(keptSpeed);
  useEffect(() => {
    film.speed(speed);
    localStorage.setItem(KEPT, String(speed));
  }, [film, speed]);
  useKeys(film, setSpeed);
  return (
    <Group mt="xs" gap="sm">
      <NativeSelect
        size="xs"
        aria-label="Speed"
        value={String(speed)}
        data={SPEEDS.map((s) => ({
          value: String(s),
          label: s === 1 ? 'As it was spoken' : `${s} times as fast`,
        }))}
        onChange={(e) => setSpeed(Number(e.currentTarget.value))}
      />
      {resumed !== null && (
        <Group gap="xs">
          <Text size="sm">You were at {lengthWords(resumed)}.</Text>
          <Button size="compact-sm" variant="default" onClick={() => film.seek(0)}>
            From the beginning
          </Button>
        </Group>
      )}
      <Text size="sm" c="dimmed" visibleFrom="sm">
        Keys: space plays and stops, arrows go {STEP_S} seconds, <kbd>,</kbd> and <kbd>.</kbd> slower and
        faster.
      </Text>
    </Group>
  );
}

/** Keys that act wherever nothing else takes them. */
function useKeys(film: Film, setSpeed: (next: (speed: number) => number) => void) {
  useEffect(() => {
    const step = (by: number) => (speed: number) => {
      const next = SPEEDS.findIndex((s) => s === speed) + by;
      return SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, next))]!;
    };
    const onKey = (e: KeyboardEvent) => {
      const within = (e.target as Element).closest?.(
        'input, textarea, select, button, a, video, [role=slider]',
      );
      if (within || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === ' ') film.toggle();
      else if (e.key === 'ArrowLeft') film.seek(film.now() - STEP_S * 1000);
      else if (e.key === 'ArrowRight') film.seek(film.now() + STEP_S * 1000);
      else if (e.key === ',') setSpeed(step(-1));
      else if (e.key === '.') setSpeed(step(1));
      else return;
      e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [film, setSpeed]);
}
