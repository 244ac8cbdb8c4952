export { careTasks } from './maintenance'
export { changeWords, type Paper, paperMarkdown, paperOf, verdictWords } from './print-report'
