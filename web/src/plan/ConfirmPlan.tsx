import { Alert, Button, Group, Loader, Modal, Stack, Text } from '@mantine/core';
import type { Finding, PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { OutcomeView } from './OutcomeView';
import { Begin } from '../ui/Begin';
import { usePreview } from './usePreview';

interface Props {
  edit: PlanEditDraft | null;
  title: string;
  action: string;
  close: () => void;
  done?: () => void;
  /** What stops the term from being run like this: said before it is done all the same. */
  stops?: readonly Finding[];
}

/** What an edit of the plan does and the letters it causes, before the one press that does it. */
export function ConfirmPlan({ edit, title, action, close, done, stops = [] }: Props) {
  const course = useThisCourse();
  const preview = usePreview(course.id, edit);
  return (
    <Modal opened={edit !== null} onClose={close} title={<Begin>{title}</Begin>} size="lg">
      <Stack>
        {stops.length > 0 && <Stops stops={stops} />}
        {!preview.outcome && !preview.fault && <Loader aria-label="Working out what it does" />}
        <SavePlan edit={edit} preview={preview} action={action} close={close} done={done ?? close} />
      </Stack>
    </Modal>
  );
}

const MOST = 3;

function Stops({ stops }: { stops: readonly Finding[] }) {
  return (
    <Alert color="clay" title="The term cannot be run like this">
      {stops.slice(0, MOST).map((f) => (
        <Text key={f.id} size="sm">
          {f.text}
        </Text>
      ))}
      {stops.length > MOST && <Text size="sm">and {stops.length - MOST} more: the plan shows them all</Text>}
    </Alert>
  );
}

/** What a previewed edit does, or why it cannot be, and the press that does it. */
export function SavePlan(props: {
  edit: PlanEditDraft | null;
  preview: { outcome: PlanOutcome | null; fault: Error | null };
  action: string;
  close: () => void;
  done: () => void;
}) {
  const { edit, preview, action, close, done } = props;
  const { outcome, fault } = preview;
  const save = useSavePlan(outcome?.on);
  const told = outcome?.told.length ?? 0;
  return (
    <>
      {outcome && <OutcomeView outcome={outcome} edit={edit} />}
      {fault && (
        <Text size="sm" c="var(--clay)" role="status">
          {fault.message}
        </Text>
      )}
      <Group>
        <Button
          disabled={!edit || !outcome}
          loading={save.isPending}
          onClick={() => edit && save.mutate(edit, { onSuccess: done })}
        >
          {told ? `${action} and tell ${countWords(told, 'person', 'people')}` : action}
        </Button>
        <Button variant="default" onClick={close}>
          Back
        </Button>
      </Group>
    </>
  );
}

/** Does an edit of the plan, as it was previewed on a state of it, and says what came of it. */
export function useSavePlan(on?: string) {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (edit: PlanEditDraft) => ask<PlanOutcome>(`/courses/${course.id}/plan`, 'POST', edit, { on }),
    ({ words, told }) =>
      `${words}.${told.length ? ` ${countWords(told.length, 'person', 'people')} will be told.` : ''}`,
  );
}
