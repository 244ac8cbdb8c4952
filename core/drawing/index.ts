/** Templates at true scale. */
export { adapterTemplate } from './adapter-template'
export { fanTemplate, panelTemplate } from './fan-template'
export { templateDxf, templateSvg } from './template'
export { papers, tilesOf, type Paper, type Sheets } from './tiles'
