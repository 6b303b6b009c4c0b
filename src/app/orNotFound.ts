import { notFound } from 'next/navigation';
import { Failure } from '@/server/failure';

/** What a page is of; where it does not exist, or its id cannot be one, the page says so with a way out. */
export async function orNotFound<T>(find: () => T | Promise<T>): Promise<T> {
  try {
    return await find();
  } catch (error) {
    if (error instanceof Failure && error.status === 404) return notFound();
    throw error;
  }
}
