export * from './frames'
export * from './cutting'
export * from './screws'
export * from './distances'
