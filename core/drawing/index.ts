/** Templates at true scale. */
export { fanTemplate, templateDxf, templateSvg } from './template'
