import { Button, Group, Select, Title } from '@mantine/core';
import { Link, useSearchParams } from 'react-router';
import type { BellTimes, TermInfo } from '@nimble-bell/core/api';
import { dayWords, mondayOf, toEpochDay, toLocalDate } from '@nimble-bell/core/calendar';
import { useAsked, stopOf } from '../app/queries';
import { CollegeFrame } from './CollegeFrame';
import { Fault } from '../ui/Fault';
import { Empty } from '../ui/Panel';
import { BellTimesPanel } from './BellTimesPanel';
import { TermEditor } from './TermEditor';

/** The college's terms and bell times, which every course is planned on. */
export function CollegePage() {
  const [search, setSearch] = useSearchParams();
  const terms = useAsked<TermInfo[]>('/terms');
  const bells = useAsked<BellTimes[]>('/bell-times');
  const stop = stopOf(terms);
  if (stop) return <Fault error={stop} />;
  if (!terms.data || !bells.data) return null;
  const wanted = search.get('term');
  const term = wanted === 'new' ? null : (terms.data.find((t) => t.id === wanted) ?? terms.data[0] ?? null);
  const go = (id: string) => setSearch({ term: id });
  return (
    <CollegeFrame>
      <Group justify="space-between">
        <Title key={term?.id ?? 'new'} order={1} size="h2">
          {term ? term.name : 'A new term'}
        </Title>
        <Group>
          {terms.data.length > 0 && (
            <Select
              aria-label="Term"
              w={320}
              placeholder="Choose a term"
              data={terms.data.map((t) => ({ value: t.id, label: `${t.name}, ${dayWords(t.firstDay)}` }))}
              value={term?.id ?? null}
              onChange={(v) => v && go(v)}
            />
          )}
          <Button variant="default" component={Link} to="/college/rules">
            Limits and door
          </Button>
          {wanted !== 'new' && (
            <Button variant="default" onClick={() => go('new')}>
              New term
            </Button>
          )}
        </Group>
      </Group>
      {terms.data.length === 0 && <Empty>The college has no term yet: make its first one here.</Empty>}
      <TermEditor key={term?.id ?? 'new'} known={term} fresh={freshTerm(terms.data)} made={go} />
      <BellTimesPanel sets={bells.data} />
    </CollegeFrame>
  );
}

/** A new term begins some weeks after the last one, in its zone. */
function freshTerm(terms: TermInfo[]) {
  const last = terms.at(-1);
  const monday = last ? mondayOf(toEpochDay(last.lastDay)) + 21 : mondayOf(toEpochDay('2026-09-01'));
  return {
    name: '',
    zone: last?.zone ?? 'UTC',
    firstDay: toLocalDate(monday),
    lastDay: toLocalDate(monday + 15 * 7 - 1),
    daysOff: [],
    daySwaps: [],
  };
}
