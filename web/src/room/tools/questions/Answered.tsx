import type { OnPicture } from '@nimble-bell/core/questions';
import { Bars, type BarsProps } from './Bars';
import { Pointing } from './Pointing';

/** What was answered: as bars; places on a picture on that as well. */
export function Answered(props: BarsProps) {
  const { question, tally, own } = props;
  return (
    <>
      {question.picture && (
        <Pointing picture={question.picture} points={tally.points ?? []} own={own as OnPicture | null} />
      )}
      <Bars {...props} />
    </>
  );
}
