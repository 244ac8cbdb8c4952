export * from './axes'
export * from './follow'
export * from './read-curve'
