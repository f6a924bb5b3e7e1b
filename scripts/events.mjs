import { runTypeScript } from './lib/runTypeScript.mjs';
import { orSay } from './lib/say.mjs';

/** npm run events: writes the list of the room's commands and events anew. */
orSay(runTypeScript('scripts/events/main.ts'));
