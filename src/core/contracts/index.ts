export { LIMITS } from './limits';
