/** Templates at true scale. */
export { adapterTemplate, fanTemplate, panelTemplate, templateDxf, templateSvg } from './template'
