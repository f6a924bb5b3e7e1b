import type { Front } from '@nimble-bell/core/room';
import { told } from '../../app/told';

/** What one looks at for oneself, for as long as the class looks at that; null where one looks with the class. */
export const ownStage = told<{ shows: Front; while: Front } | null>(null);

/** What one looks at, where the class looks at this. */
export const shownWhile = (front: Front, own: ReturnType<typeof ownStage.get>): Front =>
  own?.while === front ? own.shows : front;
