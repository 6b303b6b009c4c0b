import { parentPort } from 'node:worker_threads';
import { fileWork, type FileRequest } from './fileWork';

parentPort?.on('message', (request: FileRequest) => parentPort?.postMessage(fileWork(request)));
