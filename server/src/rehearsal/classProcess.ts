import { StandInClass, type ToClass } from './standInClass';

/** The process of one made-up class: it ends with the server that began it. */
const SAYS_MS = 1000;
let standIns: StandInClass | null = null;

process.on('message', (message: ToClass) => {
  if (message.do === 'begin') {
    standIns ??= new StandInClass(message);
    setInterval(() => standIns && process.send?.(standIns.says()), SAYS_MS);
  } else standIns?.prompt(message.what);
});
process.on('disconnect', () => process.exit(0));
