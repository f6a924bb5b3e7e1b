/** A page of text: a heading, and lines below it; with a curve beneath, where it has one. */
export interface PlainPage {
  title: string;
  lines?: readonly string[];
  /** Heights of a curve from left to right, 0 to 1. */
  curve?: readonly number[];
}

const [WIDTH, HEIGHT] = [960, 540];
const PINE = '0.118 0.322 0.267';
const INK = '0.133 0.188 0.169';
const BRASS = '0.784 0.573 0.122';

const inText = (text: string) => text.replace(/[\\()]/g, '\\$&');
const text = (x: number, y: number, size: number, font: 'F1' | 'F2', said: string) =>
  `BT /${font} ${size} Tf ${x} ${y} Td (${inText(said)}) Tj ET`;

function contentOf({ title, lines = [], curve }: PlainPage): string {
  const said = [
    `${PINE} rg 0 ${HEIGHT - 14} ${WIDTH} 14 re f`,
    `${PINE} rg ${text(56, HEIGHT - 92, 40, 'F2', title)}`,
    `${INK} rg`,
    ...lines.map((line, i) => text(56, HEIGHT - 152 - i * 40, 25, 'F1', line)),
  ];
  if (curve?.length) {
    const at = (h: number, i: number) =>
      `${(56 + (i * (WIDTH - 112)) / (curve.length - 1)).toFixed(1)} ${(50 + h * 170).toFixed(1)}`;
    said.push(`${PINE} RG 1.5 w 56 50 m ${WIDTH - 56} 50 l S`);
    said.push(`${BRASS} RG 4 w ${curve.map((h, i) => `${at(h, i)} ${i ? 'l' : 'm'}`).join(' ')} S`);
  }
  return said.join('\n');
}

/** A PDF of plain pages (ISO 32000-1), 16 to 9, in a letter that every reader has; of Latin letters alone. */
export function plainPdf(pages: readonly PlainPage[]): Buffer {
  const font = (name: string) =>
    `<< /Type /Font /Subtype /Type1 /BaseFont /${name} /Encoding /WinAnsiEncoding >>`;
  const kids = pages.map((_, i) => `${5 + 2 * i} 0 R`).join(' ');
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Count ${pages.length} /Kids [${kids}] /MediaBox [0 0 ${WIDTH} ${HEIGHT}] /Resources << /Font << /F1 3 0 R /F2 4 0 R >> >> >>`,
    font('Helvetica'),
    font('Helvetica-Bold'),
    ...pages.flatMap((page, i) => {
      const content = contentOf(page);
      return [
        `<< /Type /Page /Parent 2 0 R /Contents ${6 + 2 * i} 0 R >>`,
        `<< /Length ${Buffer.byteLength(content, 'latin1')} >>\nstream\n${content}\nendstream`,
      ];
    }),
  ];
  let file = '%PDF-1.4\n';
  const places = objects.map((object, i) => {
    const place = Buffer.byteLength(file, 'latin1');
    file += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return place;
  });
  const table = Buffer.byteLength(file, 'latin1');
  const rows = places.map((place) => `${String(place).padStart(10, '0')} 00000 n \n`).join('');
  file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${rows}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`;
  return Buffer.from(file, 'latin1');
}
