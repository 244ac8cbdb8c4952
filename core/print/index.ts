export { maintenanceTasks } from './maintenance'
export { changeWords, type PrintReport, printMarkdown, printReportOf, verdictWords } from './print-report'
