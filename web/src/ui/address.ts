/** An address of the web as it was typed, whole; null where it is none. Without a scheme it is https. */
export function addressOf(typed: string): string | null {
  const text = typed.trim();
  if (!text || /\s/.test(text)) return null;
  try {
    const url = new URL(/^[a-z][a-z0-9+.-]*:/i.test(text) ? text : `https://${text}`);
    return /^https?:$/.test(url.protocol) && url.host.includes('.') ? url.href : null;
  } catch {
    return null;
  }
}
