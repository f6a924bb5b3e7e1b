import { isNobodys } from '@nimble-bell/core/roster';
import { useRef, useState } from 'react';
import type { CourseDetail, MemberInfo } from '@nimble-bell/core/api';
import { instantWords, zoneWords } from '@nimble-bell/core/calendar';
import { useNow } from '../app/clock';
import classes from './class.module.css';
import { INVITATION_WORDS, replyWords, scopeWords } from './words';

/** A box to tick, as light as they come: there are many. */
export function Box(props: {
  label: string;
  checked: boolean;
  some?: boolean;
  change: (on: boolean) => void;
  cell: string;
  active: boolean;
}) {
  const { label, checked, some = false, change } = props;
  return (
    <input
      type="checkbox"
      className={classes.box}
      aria-label={label}
      data-cell={props.cell}
      tabIndex={props.active ? 0 : -1}
      checked={checked}
      ref={(box) => {
        if (box) box.indeterminate = some;
      }}
      onChange={(e) => change(e.currentTarget.checked)}
    />
  );
}

/** A cell under change: Enter and leaving it keep what is typed, Escape does not. */
export function CellEditor(props: {
  label: string;
  value: string;
  done: (value: string | null, byKey: boolean) => void;
}) {
  const [value, setValue] = useState(props.value);
  const closed = useRef(false);
  const close = (result: string | null, byKey: boolean) => {
    if (closed.current) return;
    closed.current = true;
    props.done(result, byKey);
  };
  return (
    <input
      className={classes.edit}
      aria-label={props.label}
      value={value}
      autoFocus
      onFocus={(e) => e.currentTarget.select()}
      onChange={(e) => setValue(e.currentTarget.value)}
      onBlur={() => close(value.trim(), false)}
      onKeyDown={(e) => {
        if (e.key === 'Enter') close(value.trim(), true);
        else if (e.key === 'Escape') close(null, true);
        else return;
        e.preventDefault();
        e.stopPropagation();
      }}
    />
  );
}

/** What a cell shows of a person. */
export function Cell(props: { column: string; member: MemberInfo; course: CourseDetail; now: string }) {
  const { column: name, member: m, course } = props;
  switch (name) {
    case 'name':
      return m.preferredName ? `${m.name} (${m.preferredName})` : m.name;
    case 'email':
      return isNobodys(m.email) ? (
        <span className={classes.quiet}>{m.email.startsWith('visitor-') ? 'by class link' : 'none'}</span>
      ) : (
        m.email
      );
    case 'role':
      return m.scope ? <span title={scopeWords(m.scope, course)}>{m.role}*</span> : m.role;
    case 'group':
      return m.group;
    case 'zone':
      return (
        <>
          {zoneWords(m.zone)} <span className="figures">{props.now}</span>
        </>
      );
    case 'invitation':
      if (m.role === 'teacher' && m.invitation === 'none') return null;
      return (
        <span
          className={
            m.invitation === 'failed' || m.invitation === 'bounced'
              ? classes.bad
              : m.invitation === 'sent'
                ? undefined
                : classes.quiet
          }
        >
          {INVITATION_WORDS[m.invitation]}
        </span>
      );
    case 'reply':
      return replyWords(m);
    case 'seen':
      return <LinkState member={m} zone={course.term.zone} />;
    default:
      return null;
  }
}

/** Whether the link in force was used, and when it ends. */
function LinkState({ member: m, zone }: { member: MemberInfo; zone: string }) {
  const now = useNow(60_000);
  if (m.linkUntil !== null && m.linkUntil <= now) return <span className={classes.quiet}>over</span>;
  if (m.role === 'teacher' && m.lastSeen === null) return null;
  const used = m.lastSeen !== null && m.lastSeen >= (m.linkAt ?? 0);
  const words = used ? instantWords(m.lastSeen!, zone) : m.linkAt ? 'replaced, not used' : 'never';
  return (
    <span className={used ? undefined : classes.quiet}>
      {words}
      {m.linkUntil !== null && `, until ${instantWords(m.linkUntil, zone)}`}
    </span>
  );
}
