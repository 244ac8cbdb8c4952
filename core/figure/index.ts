export { figure, type Figure, type FigureBasis, type FigureInput, input } from './figure'
