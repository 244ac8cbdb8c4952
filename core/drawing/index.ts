/** Templates at true scale. */
export { adapterTemplate } from './adapter-template'
export { cartonTemplate, holePlaces } from './carton-template'
export { fanTemplate, panelTemplate } from './fan-template'
export { templateDxf, templateSvg, type Template } from './template'
export { papers, tilesOf, type Paper, type Sheets } from './tiles'
