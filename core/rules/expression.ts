import jsep, { type Expression as Syntax } from 'jsep'
import type { FactValue } from './fact-catalogue'

/** A known value, or undefined for "unknown". */
export type Value = FactValue | undefined
type Lookup = (name: string) => Value

/** A parsed trigger: evaluated three-valued, with the facts it reads. */
export interface Expression {
  facts: string[]
  evaluate: (facts: Lookup) => Value
}

type Node = (facts: Lookup) => Value

// the words of the rules beside the parser's own signs; the number is how tightly a sign binds
jsep.addBinaryOp('or', 1)
jsep.addBinaryOp('and', 2)
jsep.addBinaryOp('in', 7)
jsep.addBinaryOp('**', 11, true)
jsep.addUnaryOp('not')

const number = (v: Value): number | undefined => (typeof v === 'number' && Number.isFinite(v) ? v : undefined)

/** On two numbers; unknown where one of them is, or the result is no number. */
const numeric =
  (operate: (a: number, b: number) => FactValue) =>
  (left: Node, right: Node): Node =>
  (facts) => {
    const a = number(left(facts))
    const b = number(right(facts))
    if (a === undefined || b === undefined) return undefined
    const value = operate(a, b)
    return typeof value === 'number' ? number(value) : value
  }

/** On any two known values. */
const equality =
  (same: boolean) =>
  (left: Node, right: Node): Node =>
  (facts) => {
    const [a, b] = [left(facts), right(facts)]
    return a === undefined || b === undefined ? undefined : (a === b) === same
  }

/** One side can decide alone: false and ? is false, true or ? is true. */
const logic =
  (decides: boolean) =>
  (left: Node, right: Node): Node =>
  (facts) => {
    const a = left(facts)
    if (a === decides) return decides
    const b = right(facts)
    if (b === decides) return decides
    return a === undefined || b === undefined ? undefined : !decides
  }

const binary: Record<string, (left: Node, right: Node) => Node> = {
  or: logic(true),
  and: logic(false),
  '==': equality(true),
  '!=': equality(false),
  '<': numeric((a, b) => a < b),
  '<=': numeric((a, b) => a <= b),
  '>': numeric((a, b) => a > b),
  '>=': numeric((a, b) => a >= b),
  '+': numeric((a, b) => a + b),
  '-': numeric((a, b) => a - b),
  '*': numeric((a, b) => a * b),
  '/': numeric((a, b) => (b === 0 ? Number.NaN : a / b)),
  '**': numeric((a, b) => a ** b),
}
const unary: Record<string, (inner: Node) => Node> = {
  not: (inner) => (facts) => {
    const x = inner(facts)
    return x === undefined ? undefined : x !== true
  },
  '-': (inner) => (facts) => {
    const x = number(inner(facts))
    return x === undefined ? undefined : -x
  },
}
const functions: Record<string, (...x: number[]) => number> = {
  abs: Math.abs,
  min: Math.min,
  max: Math.max,
  log10: Math.log10,
}

const isKind = <K extends string>(node: Syntax, type: K) => node.type === type

/** Turns a syntax tree into three-valued functions. */
class Compiler {
  readonly facts = new Set<string>()
  constructor(private readonly text: string) {}

  private refuse(what: string): never {
    throw new Error(`${what} in “${this.text}”`)
  }

  node(syntax: Syntax): Node {
    const tree = syntax as jsep.CoreExpression
    switch (tree.type) {
      case 'Literal':
        return () => tree.value as FactValue
      case 'MemberExpression':
        return this.fact(tree)
      case 'UnaryExpression':
        return (unary[tree.operator] ?? this.refuse(`No sign “${tree.operator}”`))(this.node(tree.argument))
      case 'BinaryExpression':
        return tree.operator === 'in' ? this.among(tree) : this.binary(tree)
      case 'CallExpression':
        return this.call(tree)
      default:
        return this.refuse(`Cannot read a ${tree.type}`)
    }
  }

  private fact({ object, property, computed }: jsep.MemberExpression): Node {
    if (computed || !isKind(object, 'Identifier') || !isKind(property, 'Identifier'))
      return this.refuse('A fact is written group.name')
    const name = `${(object as jsep.Identifier).name}.${(property as jsep.Identifier).name}`
    this.facts.add(name)
    return (facts) => facts(name)
  }

  private binary({ operator, left, right }: jsep.BinaryExpression): Node {
    const make = binary[operator] ?? this.refuse(`No sign “${operator}”`)
    // the parser takes -2 ** 2 as (-2) ** 2, readers often as -(2 ** 2)
    if (operator === '**' && isKind(left, 'UnaryExpression')) return this.refuse('A sign before a power')
    return make(this.node(left), this.node(right))
  }

  /** x in ('a', 'b') */
  private among({ left, right }: jsep.BinaryExpression): Node {
    const list = isKind(right, 'SequenceExpression') ? (right as jsep.SequenceExpression).expressions : [right]
    const options = list.map((o) => this.node(o))
    const wanted = this.node(left)
    return (facts) => {
      const x = wanted(facts)
      return x === undefined ? undefined : options.some((o) => o(facts) === x)
    }
  }

  private call({ callee, arguments: given }: jsep.CallExpression): Node {
    const name = isKind(callee, 'Identifier') ? (callee as jsep.Identifier).name : ''
    const apply = functions[name] ?? this.refuse(`No function “${name}”`)
    const args = given.map((a) => this.node(a))
    return (facts) => {
      const values = args.map((a) => number(a(facts)))
      return values.includes(undefined) ? undefined : number(apply(...(values as number[])))
    }
  }
}

/**
 * Parses a trigger: and, or, not, comparisons, + - * / ** (power), abs min max log10, in ('a', 'b'), text in single quotes.
 * The syntax is a library's; what it means is three-valued: an expression with an unknown fact is unknown unless the rest
 * decides it (false and ? is false, true or ? is true); a division by zero is unknown. `not` binds to what stands next to
 * it.
 * @param text trigger of a rule
 * @returns the facts it reads, and its value for known facts
 * @throws Error where the text is no expression: a bug in the catalogue
 */
export function parseExpression(text: string): Expression {
  // the parser forgets brackets around a single value
  if (/\bin\s+[^\s(]/.test(text.replace(/'[^']*'/g, "''")))
    throw new Error(`After “in” stands a list in “${text}”`)
  const compiler = new Compiler(text)
  const evaluate = compiler.node(jsep(text))
  return { facts: [...compiler.facts], evaluate }
}
