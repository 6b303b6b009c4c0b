export * from './fretboard';
