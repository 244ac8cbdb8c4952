/** Templates at true scale. */
export { fanTemplate, panelTemplate, templateDxf, templateSvg } from './template'
