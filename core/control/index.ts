export * from './pwm'
export * from './tach'
