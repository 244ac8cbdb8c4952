export * from './levels'
export * from './budget'
export * from './mounts'
