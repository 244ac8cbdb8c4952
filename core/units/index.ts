export * from './quantities'
export * from './parse'
export * from './print'
export * from './text'
