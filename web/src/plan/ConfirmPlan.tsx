import { Alert, Button, Group, Loader, Modal, Stack } from '@mantine/core';
import type { PlanEditDraft, PlanOutcome } from '@nimble-bell/core/api';
import { countWords } from '@nimble-bell/core/calendar';
import { useAsk } from '../app/api';
import { useThisCourse } from '../app/course';
import { useChange } from '../app/queries';
import { OutcomeView } from './OutcomeView';
import { usePreview } from './usePreview';

interface Props {
  edit: PlanEditDraft | null;
  title: string;
  action: string;
  close: () => void;
  done?: () => void;
}

/** What an edit of the plan does and the letters it causes, before the one press that does it. */
export function ConfirmPlan({ edit, title, action, close, done }: Props) {
  const course = useThisCourse();
  const { outcome, fault } = usePreview(course.id, edit);
  const save = useSavePlan();
  const told = outcome?.told.length ?? 0;
  return (
    <Modal opened={edit !== null} onClose={close} title={title} size="lg">
      <Stack>
        {!outcome && !fault && <Loader aria-label="Working out what it does" />}
        {fault && <Alert color="clay">{fault.message}</Alert>}
        {outcome && <OutcomeView outcome={outcome} edit={edit} />}
        <Group>
          <Button
            disabled={!outcome}
            loading={save.isPending}
            onClick={() => save.mutate(edit!, { onSuccess: done ?? close })}
          >
            {told ? `${action} and tell ${countWords(told, 'person', 'people')}` : action}
          </Button>
          <Button variant="default" onClick={close}>
            Back
          </Button>
        </Group>
      </Stack>
    </Modal>
  );
}

/** Does an edit of the plan, and says what came of it. */
export function useSavePlan() {
  const course = useThisCourse();
  const ask = useAsk();
  return useChange(
    (edit: PlanEditDraft) => ask<PlanOutcome>(`/courses/${course.id}/plan`, 'POST', edit),
    ({ words, told }) =>
      `${words}.${told.length ? ` ${countWords(told.length, 'person', 'people')} will be told.` : ''}`,
  );
}
