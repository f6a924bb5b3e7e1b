import { Button, Group, List, Loader, Modal, NativeSelect, Stack, Text, Title } from '@mantine/core';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { isStanding, type SessionProof } from '@nimble-bell/core/api';
import { dateIn, instantWords } from '@nimble-bell/core/calendar';
import { LAYER_WORDS, PERMISSION_WORDS, rowOf, CAPABILITY_IDS } from '@nimble-bell/core/limits';
import type { ProofLine } from '@nimble-bell/core/room';
import { writeCsv } from '@nimble-bell/core/roster';
import { useThisCourse } from '../app/course';
import { useAsked } from '../app/queries';
import { downloadCsv } from '../ui/download';
import { Fault } from '../ui/Fault';
import { Empty, Panel, Scrolls } from '../ui/Panel';
import { PermissionMark } from '../ui/PermissionMark';
import { CapabilityHeads } from './CapabilityHeads';
import classes from './term.module.css';

/** Every student and what they may do in a session, by the same rules as in the room. */
export function ProofPage() {
  const course = useThisCourse();
  const [search, setSearch] = useSearchParams();
  const ahead = [...course.sessions, ...course.standing].filter(
    (s) => s.state !== 'held' && s.state !== 'cancelled',
  );
  const session = ahead.find((s) => s.id === search.get('of')) ?? ahead[0];
  const part = search.get('part');
  return (
    <Stack>
      <Title order={1} size="h2">
        Proof of the limits
      </Title>
      {session ? (
        <Proof
          key={session.id}
          session={session.id}
          part={part}
          ask={(of, at) => setSearch(at === null ? { of } : { of, part: at })}
          sessions={ahead.map((s) => ({
            value: s.id,
            label: `${s.seriesTitle}${isStanding(s.kind) ? '' : `, ${instantWords(s.startsAt, course.term.zone)}`}`,
          }))}
        />
      ) : (
        <Empty>No session is to come.</Empty>
      )}
    </Stack>
  );
}

interface ProofProps {
  session: string;
  part: string | null;
  sessions: { value: string; label: string }[];
  ask: (session: string, part: string | null) => void;
}

function Proof({ session, part, sessions, ask }: ProofProps) {
  const { code, term } = useThisCourse();
  const { data, error } = useAsked<SessionProof>(
    `/sessions/${session}/proof${part === null ? '' : `?part=${part}`}`,
    { keep: true, every: 5000 },
  );
  const [seen, setSeen] = useState<ProofLine | null>(null);
  if (error) return <Fault error={error} />;
  const label = sessions.find((s) => s.value === session)!.label;
  return (
    <Panel
      title={label}
      about={
        data?.live
          ? 'As the class is now. Framed is otherwise than for the class as a whole.'
          : 'As it will be. Framed is otherwise than for the class as a whole.'
      }
      action={
        <Group gap="xs">
          <NativeSelect
            aria-label="Session"
            value={session}
            data={sessions}
            onChange={(e) => ask(e.currentTarget.value, null)}
          />
          {data && !data.live && data.parts.length > 0 && (
            <NativeSelect
              aria-label="Part of the run sheet"
              value={String(data.part ?? 0)}
              data={data.parts.map((title, i) => ({ value: String(i), label: title }))}
              onChange={(e) => ask(session, e.currentTarget.value)}
            />
          )}
          {data && (
            <Button
              variant="default"
              onClick={() =>
                downloadCsv(`${code} limits ${dateIn(term.zone, Date.now())}.csv`, csvOf(data.people))
              }
            >
              Download as CSV
            </Button>
          )}
        </Group>
      }
    >
      {!data && <Loader aria-label="Looking what they may" />}
      {data && <Lines people={data.people} see={setSeen} />}
      {seen && (
        <Seen
          line={seen}
          close={() => setSeen(null)}
          page={`/as/${session}/${seen.member}?part=${data?.part ?? 0}`}
        />
      )}
    </Panel>
  );
}

const csvOf = (people: readonly ProofLine[]) =>
  writeCsv(
    ['Name', ...CAPABILITY_IDS.map((c) => rowOf(c).label)],
    people.map((p) => [
      p.name,
      ...CAPABILITY_IDS.map((c) => {
        const { state, differs, layer } = p.may[c];
        return `${PERMISSION_WORDS[state]}${differs ? ` (${layer})` : ''}`;
      }),
    ]),
  );

const HEADS = ['Student'];

function Lines({ people, see }: { people: ProofLine[]; see: (line: ProofLine) => void }) {
  if (!people.length) return <Empty>Nobody on the class list is invited to it.</Empty>;
  return (
    <Scrolls label="Students and what they may, scrolls">
      <table className={classes.term}>
        <CapabilityHeads before={HEADS} />
        <tbody>
          {people.map((p) => (
            <tr key={p.member}>
              <th scope="row">
                <button type="button" className={classes.name} onClick={() => see(p)}>
                  {p.name}
                </button>
              </th>
              {CAPABILITY_IDS.map((c) => (
                <td key={c}>
                  <span className={classes.cell} data-differs={p.may[c].differs || undefined}>
                    <PermissionMark state={p.may[c].state} />
                    {PERMISSION_WORDS[p.may[c].state]}
                  </span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scrolls>
  );
}

const WHERE: Record<string, string> = { ...LAYER_WORDS, role: 'Their role', floor: 'They have the floor' };

/** What one student reads at each of their controls. */
function Seen({ line, page, close }: { line: ProofLine; page: string; close: () => void }) {
  return (
    <Modal opened onClose={close} title={`As ${line.name} has it`} centered size="lg">
      <Button component={Link} to={page} mb="md">
        Look at their room
      </Button>
      <List spacing="sm" listStyleType="none">
        {CAPABILITY_IDS.map((c) => {
          const { state, words, layer } = line.may[c];
          return (
            <List.Item key={c} icon={<PermissionMark state={state} />}>
              <Text fw={600}>
                {rowOf(c).label}: {PERMISSION_WORDS[state].toLowerCase()}
              </Text>
              <Text size="sm">{words}</Text>
              <Text size="xs" c="dimmed">
                {WHERE[layer]}
              </Text>
            </List.Item>
          );
        })}
      </List>
    </Modal>
  );
}
