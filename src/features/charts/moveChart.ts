import { readChartMidi, readMusicXml, writeChartMidi, writeMusicXml } from '@/core/formats';
import { readChart, type Chart } from '@/core/chart';
import { accepted, refused, type Outcome } from '@/core/shared';

const MOST_BYTES = 16 * 1024 * 1024;

/** A chart's text from a file: chart text, MusicXML or MIDI markers, told apart by what they hold. */
export async function chartFromFile(file: File): Promise<Outcome<string>> {
  if (file.size > MOST_BYTES)
    return refused({
      code: 'file.too-large',
      message: `${file.name} holds ${Math.round(file.size / 1024 / 1024)} MB; a chart file holds at most ${MOST_BYTES / 1024 / 1024}.`,
    });
  const bytes = new Uint8Array(await file.arrayBuffer());
  const start = new TextDecoder('latin1').decode(bytes.subarray(0, 4));
  if (start === 'MThd') return readChartMidi(bytes);
  const text = new TextDecoder().decode(bytes).replace(/^\uFEFF/, '');
  if (start.startsWith('PK') || /^\s*</.test(text))
    return readMusicXml(start.startsWith('PK') ? start : text);
  if (text.includes('\u0000'))
    return refused({
      code: 'file.unknown',
      message: `${file.name} is not a chart this can read.`,
      suggestion: 'Import chart text, MusicXML or a MIDI file with markers.',
    });
  const read = readChart(text);
  // a text with mistakes is brought in all the same: the editor shows them
  return read.ok || text.includes('|')
    ? accepted(text)
    : refused({
        code: 'file.unknown',
        message: `${file.name} holds no bars.`,
        suggestion: 'Import chart text, MusicXML or a MIDI file with markers.',
      });
}

export const CHART_FILES = { text: 'Chart text', musicxml: 'MusicXML', midi: 'MIDI markers' } as const;
export type ChartFile = keyof typeof CHART_FILES;

/** Hands a chart to the player as a file. */
export function saveChart(chart: Chart, format: ChartFile): void {
  const [content, type, ending] = contentOf(format, chart);
  const url = URL.createObjectURL(new Blob([content], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${
    (chart.title || 'chart')
      .replace(/[^\p{L}\p{N} _-]/gu, '')
      .trim()
      .slice(0, 60) || 'chart'
  }.${ending}`;
  link.click();
  URL.revokeObjectURL(url);
}

function contentOf(format: ChartFile, chart: Chart): [content: BlobPart, type: string, ending: string] {
  if (format === 'midi') return [writeChartMidi(chart) as BlobPart, 'audio/midi', 'mid'];
  if (format === 'musicxml')
    return [writeMusicXml(chart), 'application/vnd.recordare.musicxml+xml', 'musicxml'];
  return [chart.text, 'text/plain', 'txt'];
}
