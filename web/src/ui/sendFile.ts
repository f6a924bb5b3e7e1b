import type { ErrorBody } from '@nimble-bell/core/api';

interface Sending {
  /** Told now and then, 0 to 1. */
  tell: (share: number) => void;
  /** The personal link by which one is here, if any. */
  link?: string | null;
}

/** Sends a file as a request's body; the browser's fetch tells no progress, an XMLHttpRequest does. Gives the answer. */
export function sendFile(path: string, file: File, { tell, link }: Sending): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', path);
    request.setRequestHeader('content-type', 'application/octet-stream');
    if (link) request.setRequestHeader('authorization', `Link ${link}`);
    request.upload.onprogress = (e) => tell(e.loaded / Math.max(1, e.total));
    request.onerror = () => reject(new Error('could not be sent: the server does not answer.'));
    request.onload = () => {
      const body = JSON.parse(request.responseText || '{}') as Partial<ErrorBody>;
      if (request.status < 300) return resolve(body);
      reject(new Error(body.error?.message ?? 'could not be sent.'));
    };
    request.send(file);
  });
}
