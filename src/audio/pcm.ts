/** Float samples as 16-bit little-endian PCM; the fixed scale keeps a 16-bit recording bit for bit. */
export function toPcm16(samples: Float32Array): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(samples.length * 2);
  const view = new DataView(bytes.buffer);
  for (let n = 0; n < samples.length; n++)
    view.setInt16(n * 2, Math.max(-32_768, Math.min(32_767, Math.round(samples[n]! * 32_768))), true);
  return bytes;
}

/** Float samples as 24-bit little-endian PCM: what a 16- or 24-bit input gave, bit for bit. */
export function toPcm24(samples: Float32Array): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(samples.length * 3);
  for (let n = 0, at = 0; n < samples.length; n++, at += 3) {
    const value = Math.max(-8_388_608, Math.min(8_388_607, Math.round(samples[n]! * 8_388_608)));
    bytes[at] = value & 255;
    bytes[at + 1] = (value >> 8) & 255;
    bytes[at + 2] = (value >> 16) & 255;
  }
  return bytes;
}

/** The samples a 24-bit PCM holds. */
export function fromPcm24(bytes: Uint8Array): Float32Array {
  return Float32Array.from(
    { length: Math.floor(bytes.length / 3) },
    (_, n) => ((bytes[n * 3]! | (bytes[n * 3 + 1]! << 8) | (bytes[n * 3 + 2]! << 16)) << 8) / 2_147_483_648,
  );
}

export async function sha256(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...digest].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}
