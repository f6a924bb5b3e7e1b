import { StandInClass, type OfClass, type ToClass } from './standInClass';

/** The process of one made-up class: it ends with the server that began it. */
const SAYS_MS = 1000;
let standIns: StandInClass | null = null;

process.on('message', (message: ToClass) => {
  if (message.do === 'begin') {
    const made = (standIns ??= new StandInClass(message));
    setInterval(() => process.send?.({ refused: made.refused } satisfies OfClass), SAYS_MS);
  } else standIns?.prompt(message.what);
});
process.on('disconnect', () => process.exit(0));
