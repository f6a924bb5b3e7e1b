/** A page is so wide, points (1/72 inch): a landscape sheet of A4. */
const PAGE_WIDTH = 842;

/** A PDF (ISO 32000-1) with a page for each JPEG picture, all of one size in pixels. */
export function picturesPdf(
  pictures: readonly Uint8Array[],
  { width, height }: { width: number; height: number },
): Uint8Array<ArrayBuffer> {
  const file = new Writer();
  const tall = Math.round((PAGE_WIDTH * height) / width);
  const page = (i: number) => 3 + i * 3;
  file.text('%PDF-1.4\n');
  file.object(1, '<< /Type /Catalog /Pages 2 0 R >>');
  const kids = pictures.map((_, i) => `${page(i)} 0 R`).join(' ');
  file.object(2, `<< /Type /Pages /Kids [${kids}] /Count ${pictures.length} >>`);
  pictures.forEach((picture, i) => {
    const [own, content, image] = [page(i), page(i) + 1, page(i) + 2];
    const resources = `<< /XObject << /Board ${image} 0 R >> >>`;
    file.object(
      own,
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${PAGE_WIDTH} ${tall}] /Resources ${resources} /Contents ${content} 0 R >>`,
    );
    const draw = new TextEncoder().encode(`q ${PAGE_WIDTH} 0 0 ${tall} 0 0 cm /Board Do Q`);
    file.stream(content, '', draw);
    const of = `/Type /XObject /Subtype /Image /Width ${width} /Height ${height} /ColorSpace /DeviceRGB /BitsPerComponent 8 /Filter /DCTDecode`;
    file.stream(image, of, picture);
  });
  return file.end();
}

/** Writes a PDF's objects, and where each begins. */
class Writer {
  readonly #parts: Uint8Array[] = [];
  #length = 0;
  readonly #begins: number[] = [];

  text(words: string) {
    this.#bytes(new TextEncoder().encode(words));
  }

  object(number: number, body: string) {
    this.#begins[number] = this.#length;
    this.text(`${number} 0 obj\n${body}\nendobj\n`);
  }

  stream(number: number, of: string, bytes: Uint8Array) {
    this.#begins[number] = this.#length;
    this.text(`${number} 0 obj\n<< ${of} /Length ${bytes.length} >>\nstream\n`);
    this.#bytes(bytes);
    this.text('\nendstream\nendobj\n');
  }

  end(): Uint8Array<ArrayBuffer> {
    const [at, count] = [this.#length, this.#begins.length];
    const lines = this.#begins.slice(1).map((begin) => `${String(begin).padStart(10, '0')} 00000 n \n`);
    this.text(`xref\n0 ${count}\n0000000000 65535 f \n${lines.join('')}`);
    this.text(`trailer\n<< /Size ${count} /Root 1 0 R >>\nstartxref\n${at}\n%%EOF\n`);
    const all = new Uint8Array(this.#length);
    let to = 0;
    for (const part of this.#parts) {
      all.set(part, to);
      to += part.length;
    }
    return all;
  }

  #bytes(bytes: Uint8Array) {
    this.#parts.push(bytes);
    this.#length += bytes.length;
  }
}
