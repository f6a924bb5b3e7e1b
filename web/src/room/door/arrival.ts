import { told } from '../../app/told';

/** How somebody wants to come in, as they chose before the door; for as long as the page is open. */
export const arrival = told<{ camera: boolean; listens: boolean }>({ camera: false, listens: false });
