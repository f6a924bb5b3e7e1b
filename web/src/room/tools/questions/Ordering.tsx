import { ActionIcon, Text } from '@mantine/core';
import { IconArrowDown, IconArrowUp } from '@tabler/icons-react';
import { useEffect, useRef } from 'react';
import strip from '../strip.module.css';
import classes from './questions.module.css';

interface Props {
  options: readonly string[];
  order: readonly number[] | null;
  onChange: (order: number[]) => void;
}

/** Options put in order, one step at a time; focus goes with what is moved. */
export function Ordering({ options, order, onChange }: Props) {
  const now = order ?? options.map((_, i) => i);
  const list = useRef<HTMLOListElement>(null);
  const moved = useRef<{ option: number; by: number } | null>(null);
  useEffect(() => {
    // As it stands is an order too: it can be given without moving anything.
    if (!order) onChange([...now]);
  });
  useEffect(() => {
    if (!moved.current) return;
    const { option, by } = moved.current;
    moved.current = null;
    const buttons = list.current?.querySelectorAll<HTMLButtonElement>(`[data-option="${option}"] button`);
    const wanted = buttons?.[by < 0 ? 0 : 1];
    (wanted?.disabled ? buttons?.[by < 0 ? 1 : 0] : wanted)?.focus();
  }, [order]);
  const move = (at: number, by: number) => {
    const next = [...now];
    [next[at], next[at + by]] = [next[at + by]!, next[at]!];
    moved.current = { option: now[at]!, by };
    onChange(next);
  };
  return (
    <div>
      <Text size="sm" fw={550}>
        Put them in order, the first on top
      </Text>
      <ol className={classes.ordering} ref={list}>
        {now.map((option, at) => (
          <li key={option} data-option={option}>
            <span>
              {at + 1}. {options[option]}
            </span>
            {[-1, 1].map((by) => (
              <ActionIcon
                key={by}
                variant="default"
                size="lg"
                disabled={at + by < 0 || at + by >= now.length}
                aria-label={`${options[option]} ${by < 0 ? 'earlier' : 'later'}`}
                onClick={() => move(at, by)}
              >
                {by < 0 ? <IconArrowUp size={18} /> : <IconArrowDown size={18} />}
              </ActionIcon>
            ))}
          </li>
        ))}
      </ol>
      <span role="status" className={strip.unseen}>
        {now.map((o) => options[o]).join(', ')}
      </span>
    </div>
  );
}
