/**
 * The content policy forbids code made at run time; schemas are told so before any is made. Said where Zod looks for it,
 * so that a page without schemas does not load Zod to say it.
 */
Object.assign(globalThis, { __zod_globalConfig: { jitless: true } });
