import { readCaptions } from '../captions/index';
import type { WrittenLine } from './export';
import { TOGETHER_MS, type Picture } from './mixing';
import type { Chapter } from './timeline';

export interface Archived {
  title: string;
  lengthMs: number;
  sound: string;
  pictures: (Picture & { file: string })[];
  chapters: Chapter[];
  captions: { language: string; text: string }[];
  lines: WrittenLine[];
  /** What was said at tables, each in a file of its own. */
  tables: { title: string; file: string }[];
}

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** Values inside a script: nothing of them ends it. */
const inScript = (value: unknown) => JSON.stringify(value).replaceAll('<', '\\u003c');

const atTables = (tables: Archived['tables']): string =>
  tables.length
    ? `<section aria-label="At the tables"><h2>At the tables</h2>${tables
        .map(
          ({ title, file }) =>
            `<p>${escaped(title)}<audio src="${escaped(file)}" controls preload="none" aria-label="${escaped(title)}"></audio></p>`,
        )
        .join('')}</section>\n`
    : '';

/**
 * One page that plays a recording from the files beside it, without a server: sound leads, pictures follow, chapters,
 * captions and writing come in their time.
 */
export function archivePage({ title, sound, pictures, chapters, captions, lines, tables }: Archived): string {
  const cues = Object.fromEntries(captions.map((c) => [c.language, readCaptions(c.text)]));
  const written = lines.map(({ position, by, text }) => ({ position, by, text }));
  const first = captions[0]?.language ?? '';
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<style>
body{margin:0;background:#FBF7EE;color:#22302B;font:16px/1.45 system-ui,sans-serif}
main{max-width:1200px;margin:auto;padding:16px;display:grid;grid-template-columns:2fr 1fr;gap:16px}
h1{grid-column:1/-1;margin:0;color:#1E5244}
#seen{display:flex;gap:6px;background:#12201b;border-radius:8px;overflow:hidden}
#seen video{min-width:0;flex:1;max-height:62vh}#seen video.beside{flex:0 0 24%;align-self:flex-start}
audio{width:100%;margin-top:6px}#said{min-height:2.8em;text-align:center;white-space:pre-line}
button{margin:3px;padding:4px 10px;border:1px solid #cfc9ba;border-radius:5px;background:#fff;font:inherit}
#written{max-height:70vh;overflow:auto}#written p{margin:4px 0;overflow-wrap:anywhere}
@media(max-width:760px){main{grid-template-columns:1fr}}
</style>
</head>
<body>
<main>
<h1>${escaped(title)}</h1>
<section aria-label="The recording">
<div id="seen"></div>
<p id="said" lang="${escaped(first)}"></p>
<audio id="sound" src="${escaped(sound)}" controls preload="metadata"></audio>
<nav aria-label="Chapters" id="chapters"></nav>
${atTables(tables)}</section>
<section aria-label="What was written"><h2>What was written</h2><div id="written"></div></section>
</main>
<script>
const pictures=${inScript(pictures)},chapters=${inScript(chapters)},cues=${inScript(cues[first] ?? [])},written=${inScript(written)};
const sound=document.getElementById('sound'),seen=document.getElementById('seen');
const two=n=>String(n).padStart(2,'0'),time=ms=>Math.floor(ms/60000)+':'+two(Math.floor(ms/1000)%60);
for(const p of pictures){const v=document.createElement('video');Object.assign(v,{src:p.file,muted:true,playsInline:true,preload:'auto',hidden:true});p.video=v;seen.append(v);}
for(const c of chapters){const b=document.createElement('button');b.textContent=time(c.position)+' '+c.title;b.onclick=()=>{sound.currentTime=c.position/1000;sound.play();};document.getElementById('chapters').append(b);}
for(const l of written){const p=document.createElement('p');p.hidden=true;const b=document.createElement('b');b.textContent=l.by+': ';p.append(b,l.text);l.line=p;document.getElementById('written').append(p);}
function show(){
const at=sound.currentTime*1000,on=k=>pictures.filter(p=>p.kind===k&&p.at<=at&&at<p.at+p.length);
const [screen,other]=on('screen').reverse(),camera=on('camera').pop();
const both=other&&Math.min(screen.at+screen.length,other.at+other.length)-screen.at>=${TOGETHER_MS};
for(const p of pictures){const v=p.video,is=p===screen||p===camera||(both&&p===other);v.hidden=!is;v.className=is&&screen&&p===camera?'beside':'';
if(!is){v.pause();continue;}
const wanted=(at-p.at)/1000,off=v.currentTime-wanted;
if(Math.abs(off)>0.3&&!v.seeking)v.currentTime=wanted;
v.playbackRate=sound.playbackRate*(Math.abs(off)>0.03?1-Math.max(-0.2,Math.min(0.2,off)):1);
if(sound.paused!==v.paused){if(sound.paused)v.pause();else v.play();}}
document.getElementById('said').textContent=cues.filter(c=>c.from<=at&&at<c.until).map(c=>c.text).join('\\n');
for(const l of written)l.line.hidden=l.position>at;}
setInterval(show,200);show();
</script>
</body>
</html>
`;
}
