export * from './situations'
