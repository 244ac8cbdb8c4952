import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'
import { expect, test } from 'vitest'

const CORE = join(import.meta.dirname, '../../core')
/** Rooms of plain formulas: every function names its published source, or says that there is none. */
const KERNELS = /^(numeric|units|figure|air|fan|airpath|need|measure|heat|noise|power|control|fit|trace)\//
/** Endings of a name that tell its unit. */
const UNIT =
  /(M3s|Pa|W|K|C|M|M2|M3|S|Ms|A|V|Hz|DbA|Kg|KgS|WK|KPerW|Rpm|Ohm|Deg|J|JK|H|N|F|Db|Share|Ratio|Factor|Count|PerH)$/
const SOURCE = /Reference|source|practice|definition|physics\.md|ISO|IEC|ASHRAE|from memory|choice of ours/i
/** Share of the functions that must be told in full. */
const WANTED = 0.95

interface Told {
  where: string
  doc: string
  /** numeric parameters without unit, neither in their name nor in the docstring */
  unitless: string[]
}

type Callable = ts.FunctionDeclaration | ts.ArrowFunction | ts.FunctionExpression
const isNumeric = (p: ts.ParameterDeclaration) =>
  /number|Float64Array/.test(p.type?.getText() ?? '') || (p.initializer && ts.isNumericLiteral(p.initializer))

function told(where: string, node: ts.Node, callable: Callable): Told {
  const doc = ts
    .getJSDocCommentsAndTags(node)
    .map((d) => d.getText())
    .join('\n')
  const unitless = callable.parameters
    .filter((p) => ts.isIdentifier(p.name) && isNumeric(p))
    .map((p) => p.name.getText())
    .filter((name) => !UNIT.test(name) && !new RegExp(`@param ${name}\\b`).test(doc))
  return { where, doc, unitless }
}

function exportedFunctions(file: string): Told[] {
  const source = ts.createSourceFile(file, readFileSync(join(CORE, file), 'utf8'), 99, true)
  return source.statements.flatMap((statement) => {
    if (!ts.canHaveModifiers(statement)) return []
    if (!ts.getModifiers(statement)?.some((m) => m.kind === ts.SyntaxKind.ExportKeyword)) return []
    if (ts.isFunctionDeclaration(statement))
      return [told(`${file} ${statement.name?.text}`, statement, statement)]
    if (!ts.isVariableStatement(statement)) return []
    return statement.declarationList.declarations.flatMap(({ name, initializer }) =>
      initializer && (ts.isArrowFunction(initializer) || ts.isFunctionExpression(initializer))
        ? [told(`${file} ${name.getText()}`, statement, initializer)]
        : [],
    )
  })
}

test('exported functions say what they compute, in which units, and where that is from', () => {
  const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' })
    .map((f) => f.replaceAll('\\', '/'))
    .filter((f) => f.endsWith('.ts') && !/\.test\.ts$|index\.ts$/.test(f))
  const all = files.flatMap(exportedFunctions)
  const short = all.filter(
    ({ where, doc, unitless }) => !doc || unitless.length > 0 || (KERNELS.test(where) && !SOURCE.test(doc)),
  )
  expect(all.length).toBeGreaterThan(500)
  const share = 1 - short.length / all.length
  expect(share, short.map((s) => `${s.where} ${s.unitless.join(', ')}`).join('\n')).toBeGreaterThanOrEqual(
    WANTED,
  )
})
