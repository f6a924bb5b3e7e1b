const CALLED = { sound: 'microphone', camera: 'camera' } as const;

/** How a browser is asked again for what was refused, in words for that browser. */
function askAgain(agent: string): string {
  if (/iPhone|iPad/.test(agent))
    return 'In the settings of the device, under this browser, allow it; then open this page again.';
  if (/Firefox\//.test(agent))
    return 'Press the crossed-out sign beside the address and take the refusal back.';
  if (/Edg\/|Chrome\//.test(agent))
    return 'Press the sign left of the address, allow it, and open this page again.';
  if (/Safari\//.test(agent)) return 'In the menu of the browser, under settings for this website, allow it.';
  return 'Allow it in the settings of this website, and open this page again.';
}

/** Why a device was not opened, and what one does about it. */
export function refusedWords(
  kind: 'sound' | 'camera',
  error: { name: string; message: string },
  agent: string,
) {
  const what = CALLED[kind];
  switch (error.name) {
    case 'NotAllowedError':
      return `The browser does not allow the ${what}. ${askAgain(agent)}`;
    case 'NotReadableError':
      return `The ${what} is in use by another program. Close that, then try again.`;
    case 'OverconstrainedError':
      return `The ${what} that you chose is not there. Choose another.`;
    default:
      return `The ${what} could not be opened: ${error.message}`;
  }
}
