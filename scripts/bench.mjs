import { runTypeScript } from './lib/runTypeScript.mjs';
import { orSay } from './lib/say.mjs';

/** npm run bench [-- dates|clashes|letters|class-list|door|keystroke|limits|recording|clapper|review|room|tables|notes|strokes|asked|slides|wall|media|lighthouse|college]: the figures, each beside a named peer or limit of the same run. */
orSay(runTypeScript('scripts/bench/main.ts'));
