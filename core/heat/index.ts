export * from './sink'
export * from './pull-down'
