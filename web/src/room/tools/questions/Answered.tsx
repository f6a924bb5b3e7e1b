import { lazy, Suspense } from 'react';
import type { OnPicture } from '@nimble-bell/core/questions';
import { Bars, type BarsProps } from './Bars';

const PointPicture = lazy(() => import('./PointPicture').then((m) => ({ default: m.PointPicture })));

/** What was answered: as bars; places on a picture on that as well. */
export function Answered(props: BarsProps) {
  const { question, tally, own } = props;
  return (
    <>
      {question.picture && (
        <Suspense>
          <PointPicture
            picture={question.picture}
            points={tally.points ?? []}
            own={own as OnPicture | null}
          />
        </Suspense>
      )}
      <Bars {...props} />
    </>
  );
}
