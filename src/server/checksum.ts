import { createHash } from 'node:crypto';

/** SHA-256 of sound as it is sent and kept. */
export const checksumOf = (pcm: Uint8Array): string => createHash('sha256').update(pcm).digest('hex');
