import { LatestChange } from '../ui/LatestChange';
import { useRules, useUndoRules } from './useRules';

/** The latest change of what is set in a course, and its way back. */
export function LatestRules() {
  const latest = useRules().data?.latest;
  const undo = useUndoRules();
  if (!latest) return null;
  return (
    <LatestChange
      at={latest.at}
      words={`${latest.words}.`}
      undo={() => undo.mutate(latest.id)}
      undoing={undo.isPending}
      mb="md"
    />
  );
}
