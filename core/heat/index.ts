export * from './sink'
export * from './pull-down'
export * from './life'
