export { backUp } from './backUp';
export { restore } from './restore';
