import path from 'node:path';
import { Failure } from '../failure';
import { DeadlineThread, type ThreadOptions } from '../threads/deadlineThread';
import type { FileAnswer, FileDone, FileRequest } from './fileWork';

/** The longest take that may be kept is coded in a third of this. */
const DEADLINE_MS = 60_000;
/** Twice the sound of the longest take, and the file around it. */
const MEMORY_MB = 2_048;

// one for the whole process, as the judging thread is
const held = globalThis as { idleWanderFiles?: DeadlineThread<FileRequest, FileAnswer> };
const filesThread = () =>
  (held.idleWanderFiles ??= new DeadlineThread(
    path.resolve('dist', 'server', 'files.worker.mjs'),
    MEMORY_MB,
  ));

type FileOptions = Partial<Pick<ThreadOptions, 'signal' | 'deadlineMs' | 'transfer' | 'onShare'>>;

/**
 * Reads or writes a file in the thread for files.
 * @param options `signal` of the request: a reader who has gone away ends the work
 * @throws Failure where the file cannot be read, or it takes too long
 */
export async function inFilesThread<K extends FileRequest['kind']>(
  request: Extract<FileRequest, { kind: K }>,
  options: FileOptions = {},
): Promise<FileDone<K>> {
  const answer = await filesThread().ask(request, { deadlineMs: DEADLINE_MS, ...options });
  if ('done' in answer) return answer.done as FileDone<K>;
  if ('problem' in answer) throw new Failure(422, answer.problem);
  if (answer.lost === 'late')
    throw new Failure(422, {
      code: 'file.slow',
      message: 'This file takes too long. Nothing was changed.',
      suggestion: 'Try a shorter one, or another format.',
    });
  throw new Failure(422, {
    code: 'file.failed',
    message: `This file could not be worked on: ${answer.why.replace(/\.$/, '')}. Nothing was changed.`,
  });
}
