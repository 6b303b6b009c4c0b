export * from './plan';
export * from './landOn';
