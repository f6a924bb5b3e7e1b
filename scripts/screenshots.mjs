import { runTypeScript } from './lib/runTypeScript.mjs';
import { orSay } from './lib/say.mjs';

/** npm run screenshots: one picture of each main view into docs/screenshots, from the demo. */
orSay(runTypeScript('scripts/screenshots/main.ts'));
