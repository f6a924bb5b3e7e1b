import path from 'node:path';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

const CLASSES = /@mantine\/(core|dates|tiptap)\/esm\/.*?(\w+)\.module\.mjs$/;

/** Brings a Mantine part's own styles wherever the part itself is used, and nowhere else. */
const stylesOfParts: Plugin = {
  name: 'styles-of-parts',
  transform(code, id) {
    const [, of, part] = CLASSES.exec(id.split(path.sep).join('/')) ?? [];
    if (!of) return undefined;
    const sheet = of === 'core' ? `@mantine/core/styles/${part}.css` : `@mantine/${of}/styles.css`;
    return { code: `import '${sheet}';\n${code}`, map: null, moduleSideEffects: false };
  },
};

const NAMES = 'teal|grape|indigo|violet|lime|cyan|pink|orange|green|yellow';
const UNUSED = new RegExp(`--mantine-color-(${NAMES})-[\\w-]+:[^;}]*;?`, 'g');
const UNUSED_LIST = new RegExp(`^\\s*(${NAMES}): \\[[^\\]]*\\],?$`, 'gm');

/** Of Mantine's colours only those that stand in our theme, or are meant by its own styles. */
const ownColours: Plugin = {
  name: 'own-colours',
  enforce: 'pre',
  transform(code, id) {
    if (/MantineProvider\/default-colors\.mjs/.test(id))
      return { code: code.replace(UNUSED_LIST, ''), map: null };
    if (!/default-css-variables\.css/.test(id)) return undefined;
    return { code: code.replace(UNUSED, ''), map: null };
  },
};

/** The fonts of every page, and the code that starts each, are on their way before the first of our code is read. */
const loadedAtOnce: Plugin = {
  name: 'loaded-at-once',
  transformIndexHtml: {
    order: 'post',
    handler(_html, { bundle }) {
      const files = Object.values(bundle ?? {});
      const fonts = files.filter((f) => /-first-[^/]*\.woff2$/.test(f.fileName));
      const code = files.filter((f) => /^assets\/(first|base)-[^/]*\.(js|css)$/.test(f.fileName));
      return [
        ...fonts.map(({ fileName }) => ({
          tag: 'link',
          attrs: {
            ...{ rel: 'preload', as: 'font', type: 'font/woff2', href: `/${fileName}`, crossorigin: true },
            // A phone's headings are in the family of its text: see theme.css.
            ...(fileName.includes('bricolage') ? { media: '(min-width: 481px)' } : {}),
          },
        })),
        ...code.map(({ fileName }) => ({
          tag: 'link',
          attrs: fileName.endsWith('.css')
            ? { rel: 'preload', as: 'style', href: `/${fileName}`, crossorigin: true }
            : { rel: 'modulepreload', href: `/${fileName}` },
        })),
      ].map((tag) => ({ ...tag, injectTo: 'head' as const }));
    },
  },
};

const PACKAGES =
  /@mantine\/(core\/esm\/core|hooks\/esm\/(use-disclosure|use-element-size|use-uncontrolled|utils))\/|node_modules\/(react|react-dom|scheduler|react-router|clsx|@tanstack\/(query-core|react-query))\//;
/** Parts of Mantine that nearly every page is made of. */
const PLAIN =
  /@mantine\/core\/esm\/components\/(ActionIcon|Anchor|Button|Container|Group|Loader|Paper|Stack|Text|Title|UnstyledButton|VisuallyHidden)\//;
/** The frame of every page. */
const FRAME =
  /web\/src\/(main|app\/(Bar|Broken|Lost|Notices|Root|Shell|api|clock|notices|queries|router|schemas|theme|title|useHeadingFocus|usePainted)|ui\/(Choice|Fault|FeedPanel|Materials|NoticeBody|Panel|RecordingLine|SessionMark|SessionRows|Tag|parts\.module|useReturn)|watch\/words)\.(tsx?|css)$|core\/src\/(calendar\/(localDate|words|zone)|limits\/(capabilities|words))\.ts$|rolldown\/runtime/;
const OVER =
  /floating-ui|tabbable|react-remove-scroll|react-style-singleton|use-sidecar|@mantine\/core\/esm\/components\/(Combobox|FloatingArrow|FloatingIndicator|FocusTrap|Menu|Modal|ModalBase|Overlay|Popover|Portal|ScrollArea|SegmentedControl|Select|Tooltip|Transition)\//;
/** What one writes, chooses and ticks in without anything lying over the page: what is watched has no more. */
const FIELDS =
  /@mantine\/core\/esm\/components\/(CloseButton\/|Combobox\/(ComboboxChevron|get-parsed-combobox-data)\/|Input\/|InputBase\/|NativeSelect\/|PasswordInput\/|Textarea\/|TextInput\/|Checkbox\/|Radio\/|Switch\/|InlineInput)|@mantine\/core\/esm\/utils\/InlineInput|react-textarea/;
/** What a recording is watched with: one file, so that its first picture waits for few. */
const WATCH =
  /web\/src\/(watch\/((WatchPage|Player|Chapters|CutLink|SearchPanel)\.tsx|(useCues|useWatched)\.ts|watch\.module|film\/(?!KeyList)|time\/)|room\/tools\/(replays\.|board\/Replay|slides\/SlidesReplay|talk\/Replay))|core\/src\/(captions|watching)\/|core\/src\/recording\/(timeline|replay)\.ts/;
/** What forms have beside. */
const FORMS =
  /@mantine\/(core\/esm\/components\/(MultiSelect|NumberInput|Pill|PillsInput)|form)\/|react-number-format/;

/**
 * Few files, each for a reason: what every page needs, what lies over pages, fields, dates; the rest goes with its page.
 * With each goes what it needs itself.
 */
const groups = [
  {
    name: 'first',
    test: /web\/src\/app\/(ahead|pages)\.ts$|vite\/preload-helper|rolldown\/runtime/,
    priority: 5,
  },
  { name: 'base', test: (id: string) => PACKAGES.test(id) || PLAIN.test(id) || FRAME.test(id), priority: 4 },
  { name: 'fields', test: FIELDS, priority: 3.5 },
  { name: 'over', test: OVER, priority: 3 },
  // Dates need it too, and the entrance does not need dates.
  { name: 'grid', test: /@mantine\/core\/esm\/components\/SimpleGrid\//, priority: 2 },
  { name: 'forms', test: FORMS, priority: 1 },
  { name: 'watch', test: WATCH, priority: 0.5, includeDependenciesRecursively: false },
  { name: 'room', test: /core\/src\/room\/(?!proof|runSheet\/(left|held))/, priority: 0 },
  { name: 'dates', test: /@mantine\/dates|dayjs/, priority: 0 },
];

export default defineConfig({
  plugins: [react(), stylesOfParts, ownColours, loadedAtOnce],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    manifest: true,
    chunkSizeWarningLimit: 600,
    rolldownOptions: { output: { codeSplitting: { groups } } },
  },
});
