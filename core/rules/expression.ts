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

const TOKEN = /\s*(?:(\d+(?:\.\d+)?)|'([^']*)'|([A-Za-z_][\w.]*)|(\*\*|==|!=|<=|>=|[-+*/<>(),]))/y

function tokenize(text: string): string[] {
  const tokens: string[] = []
  TOKEN.lastIndex = 0
  const source = text.trimEnd()
  while (TOKEN.lastIndex < source.length) {
    const at = TOKEN.lastIndex
    const match = TOKEN.exec(source)
    if (!match) throw new Error(`Cannot read the rule at “${source.slice(at)}”`)
    tokens.push(match[2] !== undefined ? `'${match[2]}` : match[0].trim())
  }
  return tokens
}

const number = (v: Value): number | undefined => (typeof v === 'number' && Number.isFinite(v) ? v : undefined)

function arithmetic(left: Node, right: Node, operate: (a: number, b: number) => number): Node {
  return (facts) => {
    const a = number(left(facts))
    const b = number(right(facts))
    return a === undefined || b === undefined ? undefined : number(operate(a, b))
  }
}

const comparisons: Record<string, (a: number, b: number) => boolean> = {
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
}
const functions: Record<string, (...x: number[]) => number> = {
  abs: Math.abs,
  min: Math.min,
  max: Math.max,
  log10: Math.log10,
}

/**
 * Parses a trigger: and, or, not, comparisons, + - * / ** (power), abs min max log10, in ('a', 'b'), text in single quotes.
 * Three-valued: an expression with an unknown fact is unknown unless the rest decides it (false and ? is false,
 * true or ? is true); a division by zero is unknown.
 * @throws Error where the text is no expression: a bug in the catalogue
 */
export function parseExpression(text: string): Expression {
  const tokens = tokenize(text)
  const names = new Set<string>()
  let at = 0
  const peek = () => tokens[at]
  const take = () => tokens[at++]
  const accept = (token: string) => peek() === token && (at++, true)
  const expect = (token: string) => {
    if (!accept(token)) throw new Error(`Expected ${token} in “${text}”`)
  }

  function orExpression(): Node {
    let left = andExpression()
    while (accept('or')) {
      const [a, b] = [left, andExpression()]
      left = (facts) => {
        const x = a(facts)
        if (x === true) return true
        const y = b(facts)
        return y === true ? true : x === undefined || y === undefined ? undefined : false
      }
    }
    return left
  }

  function andExpression(): Node {
    let left = notExpression()
    while (accept('and')) {
      const [a, b] = [left, notExpression()]
      left = (facts) => {
        const x = a(facts)
        if (x === false) return false
        const y = b(facts)
        return y === false ? false : x === undefined || y === undefined ? undefined : true
      }
    }
    return left
  }

  function notExpression(): Node {
    if (!accept('not')) return comparison()
    const inner = notExpression()
    return (facts) => {
      const x = inner(facts)
      return x === undefined ? undefined : x !== true
    }
  }

  function comparison(): Node {
    const left = sum()
    if (accept('in')) {
      const options: Node[] = []
      expect('(')
      do options.push(sum())
      while (accept(','))
      expect(')')
      return (facts) => {
        const x = left(facts)
        return x === undefined ? undefined : options.some((o) => o(facts) === x)
      }
    }
    const operator = peek()
    if (operator === '==' || operator === '!=') {
      take()
      const right = sum()
      return (facts) => {
        const x = left(facts)
        const y = right(facts)
        return x === undefined || y === undefined ? undefined : (x === y) === (operator === '==')
      }
    }
    const compare = operator === undefined ? undefined : comparisons[operator]
    if (!compare) return left
    take()
    const right = sum()
    return (facts) => {
      const x = number(left(facts))
      const y = number(right(facts))
      return x === undefined || y === undefined ? undefined : compare(x, y)
    }
  }

  function sum(): Node {
    let left = product()
    for (;;) {
      if (accept('+')) left = arithmetic(left, product(), (a, b) => a + b)
      else if (accept('-')) left = arithmetic(left, product(), (a, b) => a - b)
      else return left
    }
  }

  function product(): Node {
    let left = power()
    for (;;) {
      if (accept('*')) left = arithmetic(left, power(), (a, b) => a * b)
      else if (accept('/')) left = arithmetic(left, power(), (a, b) => (b === 0 ? Number.NaN : a / b))
      else return left
    }
  }

  function power(): Node {
    const base = atom()
    return accept('**') ? arithmetic(base, power(), (a, b) => a ** b) : base
  }

  function atom(): Node {
    const token = take()
    if (token === undefined) throw new Error(`“${text}” ends too early`)
    if (token === '(') {
      const inner = orExpression()
      expect(')')
      return inner
    }
    if (token === '-')
      return arithmetic(
        () => 0,
        power(),
        (a, b) => a - b,
      )
    if (token.startsWith("'")) return () => token.slice(1)
    if (/^\d/.test(token)) return () => Number(token)
    if (token === 'true' || token === 'false') return () => token === 'true'
    const call = functions[token]
    if (call && accept('(')) {
      const args: Node[] = []
      do args.push(sum())
      while (accept(','))
      expect(')')
      return (facts) => {
        const values = args.map((a) => number(a(facts)))
        return values.includes(undefined) ? undefined : number(call(...(values as number[])))
      }
    }
    if (!/^[a-z]\w*\.\w+$/i.test(token)) throw new Error(`“${token}” is no fact in “${text}”`)
    names.add(token)
    return (facts) => facts(token)
  }

  const root = orExpression()
  if (at < tokens.length) throw new Error(`Too much at “${tokens.slice(at).join(' ')}” in “${text}”`)
  return { facts: [...names], evaluate: root }
}
