import { Popover } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import { isAsked, quietIn } from '@nimble-bell/core/room';
import { useNow } from '../../app/clock';
import parts from '../frame/parts.module.css';
import act from '../controls/act.module.css';
import { useInside, type Inside } from '../live/useRoom';
import { useHidden } from './hidden';

// Made when it is asked for.
const List = lazy(() => import('./List'));

const selectPart = ({ room: { presence, withUs, desk } }: Inside) => ({ presence, withUs, desk });
type Part = ReturnType<typeof selectPart>;
const samePart = (a: Part, b: Part) =>
  a.presence === b.presence && a.withUs === b.withUs && a.desk === b.desk;

/** How many are with us, for those who teach; who is quiet, and since when, by one press. */
export function WithUs() {
  const part = useInside(selectPart, samePart);
  const now = useNow(10_000);
  const hidden = useHidden(now);
  const [open, setOpen] = useState(false);
  const here = Object.values(part.presence.people).filter((o) => o.present && isAsked(o));
  if (!here.length) return null;
  const quiet = quietIn(part, now).length;
  const away = here.filter((o) => hidden.has(o.member)).length;
  const said = [quiet && `${quiet} quiet`, away && `${away} elsewhere`].filter(Boolean).join(', ');
  return (
    <>
      <h2 className={parts.heading}>With us</h2>
      <Popover
        opened={open}
        onChange={setOpen}
        width={340}
        position="right-start"
        shadow="md"
        withArrow
        trapFocus
        returnFocus
      >
        <Popover.Target>
          <button
            type="button"
            className={act.act}
            style={{ marginTop: 0 }}
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            <span>
              {here.length} here{said && `: ${said}`}
            </span>
          </button>
        </Popover.Target>
        <Popover.Dropdown aria-label="With us" style={{ maxHeight: '70dvh', overflowY: 'auto' }}>
          <Suspense>{open && <List part={part} now={now} hidden={hidden} />}</Suspense>
        </Popover.Dropdown>
      </Popover>
    </>
  );
}
