import { Button, Checkbox, CopyButton, Stack, Text, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import type { MemberInfo } from '@nimble-bell/core/api';
import { useAsk } from '../../app/api';
import { serverNow } from '../../app/clock';
import { useInfo } from '../live/useRoom';

/** A guest's link is good for so long after the planned end, ms. */
const AFTER_MS = 2 * 3_600_000;

/** As it is read out: four at a time. */
const spelled = (code: string) => code.replace(/.{4}(?=.)/g, '$& ');

/** Adds somebody to the class that is on; gives the link by which they come. */
function useAdding() {
  const ask = useAsk();
  const { course, session } = useInfo();
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState('');
  const [link, setLink] = useState<string | null>(null);
  const add = async (name: string, email: string, listed: boolean) => {
    setBusy(true);
    setFault('');
    const here = { scope: { series: [], sessions: [session.id] } };
    const until = Math.max(session.endsAt, serverNow()) + AFTER_MS;
    const as = listed ? { role: 'student' } : { role: 'guest', ...here, until, capabilities: ['speak'] };
    const person = { name: name.trim(), email: email.trim(), ...as };
    const at = `/courses/${course.id}/members`;
    try {
      const known = new Set((await ask<MemberInfo[]>(at)).map((m) => m.id));
      await ask(at, 'POST', { edit: 'add', invite: Boolean(person.email), person });
      // Of two who are called alike, the one who was not there before.
      const added = (await ask<MemberInfo[]>(at)).find((m) => !known.has(m.id) && m.name === person.name);
      setLink(added?.link ?? null);
    } catch (error) {
      setFault((error as Error).message);
    }
    setBusy(false);
  };
  return { add, busy, fault, link };
}

/** Somebody who was not invited, in the middle of class: by name, by address, on the class list or not. */
export default function BringIn({ close }: { close: () => void }) {
  const { add, busy, fault, link } = useAdding();
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [listed, setListed] = useState(false);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    void add(name, email, listed);
  };
  if (link) return <TheirLink name={name} link={link} mailed={Boolean(email.trim())} close={close} />;
  return (
    <form onSubmit={submit}>
      <Stack gap="xs">
        <TextInput
          label="Name"
          required
          autoFocus
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <TextInput
          label="E-mail"
          description="Their link is sent there. Without it you read it out."
          type="email"
          value={email}
          onChange={(e) => setEmail(e.currentTarget.value)}
        />
        <Checkbox
          label="On the class list from now on"
          checked={listed}
          onChange={(e) => setListed(e.currentTarget.checked)}
        />
        {fault && (
          <Text size="sm" c="var(--clay)" role="alert">
            {fault}
          </Text>
        )}
        <Button type="submit" loading={busy} disabled={!name.trim()}>
          Make their link
        </Button>
      </Stack>
    </form>
  );
}

function TheirLink(props: { name: string; link: string; mailed: boolean; close: () => void }) {
  const { name, link, mailed, close } = props;
  const whole = new URL(link, window.location.origin).href;
  return (
    <Stack gap="xs">
      <Text role="status">
        {name} can come in by this link{mailed ? ', which is on its way to them' : ''}.
      </Text>
      <Text fw={650} className="figures" style={{ overflowWrap: 'anywhere' }} data-testid="their-link">
        {new URL(whole).host}/in/ {spelled(link.replace('/in/', ''))}
      </Text>
      <CopyButton value={whole}>
        {({ copied, copy }) => (
          <Button variant="default" onClick={copy} autoFocus>
            {copied ? 'Copied' : 'Copy the link'}
          </Button>
        )}
      </CopyButton>
      <Button variant="subtle" onClick={close}>
        Done
      </Button>
    </Stack>
  );
}
