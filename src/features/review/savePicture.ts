import { elementAt, present } from '@/core/shared';

const SCALE = 2;
const MARGIN = 32;

/**
 * The form as it is drawn, as one SVG of its own: colours and type written into it, so that it looks the same
 * elsewhere.
 */
export async function pictureOfForm(title: string): Promise<{ svg: string; width: number; height: number }> {
  const rows = [...document.querySelectorAll<SVGSVGElement>('[data-testid="form"] svg')];
  const style = getComputedStyle(document.documentElement);
  const colour = (markup: string) =>
    markup.replace(
      /var\((--[\w-]+)\)/g,
      (_, name: string) => style.getPropertyValue(name).trim() || 'currentColor',
    );
  const ink = style.getPropertyValue('--ink').trim();
  const family = getComputedStyle(document.body).fontFamily;
  let y = 60;
  const placed = rows.map((row) => {
    const { width, height } = row.viewBox.baseVal;
    const part = `<svg x="${MARGIN}" y="${y}" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${colour(row.innerHTML)}</svg>`;
    y += height;
    return { part, width };
  });
  const width = Math.max(400, ...placed.map((one) => one.width)) + 2 * MARGIN;
  const height = y + MARGIN;
  const escaped = title.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><style>${await fontRules()} text{fill:${ink}} text,tspan{font-family:${family.replaceAll('"', "'")}}</style><rect width="100%" height="100%" fill="${style.getPropertyValue('--bg').trim()}"/><text x="${MARGIN}" y="40" font-size="22" font-weight="620">${escaped}</text>${placed.map(({ part }) => part).join('')}</svg>`;
  return { svg, width, height };
}

/** The page’s own faces with their files inside. */
async function fontRules(): Promise<string> {
  const faces = [...document.styleSheets]
    .flatMap((sheet) => {
      try {
        return [...sheet.cssRules];
      } catch {
        return [];
      }
    })
    .filter((rule): rule is CSSFontFaceRule => rule instanceof CSSFontFaceRule);
  const rules = await Promise.all(
    faces.map(async (face) => {
      const found = /url\("?([^")]+)"?\)/.exec(face.cssText);
      if (!found || elementAt(found, 1).startsWith('data:')) return face.cssText;
      if (/unicode-range/.test(face.cssText) && !/U\+0*0-00?FF|U\+0000/i.test(face.cssText)) return '';
      const bytes = new Uint8Array(
        await (
          await fetch(new URL(elementAt(found, 1), face.parentStyleSheet?.href ?? location.href))
        ).arrayBuffer(),
      );
      let text = '';
      for (let at = 0; at < bytes.length; at += 8192)
        text += String.fromCharCode(...bytes.subarray(at, at + 8192));
      return face.cssText.replace(found[0], `url("data:font/woff2;base64,${btoa(text)}")`);
    }),
  );
  return rules.join(' ').replaceAll('<', '&lt;');
}

export async function savePicture(kind: 'svg' | 'png', title: string): Promise<void> {
  const { svg, width, height } = await pictureOfForm(title);
  const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    if (kind === 'svg') return download(address, `${title}.svg`);
    const image = new Image();
    await new Promise<void>((done, fail) => {
      image.onload = () => done();
      image.onerror = () => fail(new Error('not drawn'));
      image.src = address;
    });
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [width * SCALE, height * SCALE];
    const context = present(canvas.getContext('2d'));
    context.scale(SCALE, SCALE);
    context.drawImage(image, 0, 0, width, height);
    const made = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    if (!made) throw new Error('not drawn');
    const png = URL.createObjectURL(made);
    download(png, `${title}.png`);
    setTimeout(() => URL.revokeObjectURL(png), 10_000);
  } finally {
    setTimeout(() => URL.revokeObjectURL(address), 10_000);
  }
}

function download(address: string, name: string): void {
  const link = document.createElement('a');
  link.href = address;
  link.download = name.replace(/[\\/:*?"<>|]/g, ' ');
  link.click();
}
