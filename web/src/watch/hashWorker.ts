import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { answerQuestions } from '../app/askWorker';

/** A file is read in parts of so many bytes: it may be larger than what a page can hold. */
const PART = 1 << 22;

/** SHA-256 of a file, in hexadecimal. */
answerQuestions<Blob>(async (file) => {
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += PART)
    hash.update(new Uint8Array(await file.slice(at, at + PART).arrayBuffer()));
  return bytesToHex(hash.digest());
});
