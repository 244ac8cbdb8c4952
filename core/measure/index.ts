export * from './compare'
export * from './uncertainty'
