/** Float samples as 16-bit little-endian PCM; the fixed scale keeps a 16-bit recording bit for bit. */
export function toPcm16(samples: Float32Array): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(samples.length * 2);
  const view = new DataView(bytes.buffer);
  for (let n = 0; n < samples.length; n++) view.setInt16(n * 2, Math.max(-32_768, Math.min(32_767, Math.round(samples[n]! * 32_768))), true);
  return bytes;
}

export async function sha256(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
