/** One address, no display name: enough of RFC 5321's mailbox to catch what people mistype. */
const ADDRESS =
  /^[^\s@<>,;:"()[\]\\]+@[A-Za-z0-9](?:[A-Za-z0-9-]*[A-Za-z0-9])?(?:\.[A-Za-z0-9](?:[A-Za-z0-9-]*[A-Za-z0-9])?)+$/;

export const isAddress = (text: string): boolean => text.length <= 254 && ADDRESS.test(text);
