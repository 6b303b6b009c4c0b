export { readWav, writeWav, toMono, WAV_LIMITS, type WavAudio } from './wav';
export { readNotes, toBeats, notesSchema, NOTES_SCHEMA, type NotesFile, type SecondsNote } from './notes';
export { readMidi } from './midi';
export { readReport, reportSchema, REPORT_SCHEMA } from './report';
export { writeMusicXml } from './musicxml/write';
export { readMusicXml, MUSICXML_LIMITS } from './musicxml/read';
export { writeChartMidi, readChartMidi } from './chartMidi';
