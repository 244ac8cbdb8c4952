export { maintenanceTasks } from './maintenance'
export {
  changeWords,
  type PrintChart,
  type PrintReport,
  printMarkdown,
  printReportOf,
  verdictWords,
} from './print-report'
