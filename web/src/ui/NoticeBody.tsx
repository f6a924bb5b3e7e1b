import { Text, Title } from '@mantine/core';
import { Fragment, type ReactNode } from 'react';
import type { DayPlan, NoticeNode } from '@nimble-bell/core/api';
import { clockWords, dateWords } from '@nimble-bell/core/calendar';
import { Materials } from './Materials';
import classes from './parts.module.css';

interface Reading {
  days: readonly DayPlan[];
  zone: string;
}

/** A notice as it is read: its own text, and the days of the plan it speaks of. Nothing of it is HTML. */
export function NoticeBody({ body, ...reading }: Reading & { body: NoticeNode }) {
  return <div className={classes.prose}>{nodes(body.content, reading)}</div>;
}

const nodes = (content: NoticeNode[] | undefined, reading: Reading): ReactNode =>
  content?.map((node, i) => <Fragment key={i}>{element(node, reading)}</Fragment>);

function element(node: NoticeNode, reading: Reading): ReactNode {
  const inside = nodes(node.content, reading);
  switch (node.type) {
    case 'text':
      return marked(node);
    case 'paragraph':
      return <p>{inside}</p>;
    case 'heading':
      return (
        <Title order={4} mt="xs">
          {inside}
        </Title>
      );
    case 'bulletList':
      return <ul>{inside}</ul>;
    case 'orderedList':
      return <ol>{inside}</ol>;
    case 'listItem':
      return <li>{inside}</li>;
    case 'blockquote':
      return <blockquote>{inside}</blockquote>;
    case 'hardBreak':
      return <br />;
    case 'dayPlan':
      return <Day date={node.attrs?.date ?? ''} {...reading} />;
    default:
      return inside;
  }
}

function marked(node: NoticeNode): ReactNode {
  return (node.marks ?? []).reduce<ReactNode>((text, { type, attrs }) => {
    if (type === 'bold') return <strong>{text}</strong>;
    if (type === 'italic') return <em>{text}</em>;
    if (type === 'underline') return <u>{text}</u>;
    if (type === 'strike') return <s>{text}</s>;
    if (type === 'link' && /^(https?:|mailto:)/i.test(attrs?.href ?? ''))
      return (
        <a href={attrs!.href} target="_blank" rel="noreferrer">
          {text}
        </a>
      );
    return text;
  }, node.text ?? '');
}

/** A day of the plan, in the reader's own time. */
export function Day({ date, days, zone }: Reading & { date: string }) {
  const day = days.find((d) => d.date === date);
  return (
    <div style={{ borderLeft: '4px solid var(--brass)', paddingLeft: 12, margin: '8px 0' }}>
      <Text component="div" fw={600}>
        {date ? dateWords(date) : 'A day of the plan'}
      </Text>
      {!day?.sessions.length && (
        <Text component="div" size="sm" c="dimmed">
          There is no session on this day.
        </Text>
      )}
      {day?.sessions.map((s) => (
        <Text component="div" key={s.id} size="sm" td={s.cancelled ? 'line-through' : undefined}>
          <span className="figures">
            {clockWords(s.startsAt, zone)}–{clockWords(s.endsAt, zone)}
          </span>{' '}
          {s.title}
          {s.cancelled && ' (cancelled)'}
        </Text>
      ))}
      {day && day.materials.length > 0 && <Materials materials={day.materials} />}
    </div>
  );
}
