export { labelsOf, type Label } from './labels'
export {
  changeWords,
  type PrintChart,
  type PrintReport,
  printMarkdown,
  printReportOf,
  sureWords,
  verdictName,
} from './print-report'
