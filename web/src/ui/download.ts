/** Hands bytes over as a file. */
export function download(name: string, content: Blob) {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Hands a text over as a file. */
export const downloadText = (name: string, text: string, type = 'text/plain') =>
  download(name, new Blob([text], { type: `${type};charset=utf-8` }));

/** Hands a table over as a file that spreadsheets read as UTF-8. */
export const downloadCsv = (name: string, csv: string) => downloadText(name, `\uFEFF${csv}`, 'text/csv');
