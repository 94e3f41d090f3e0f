import { XMLValidator } from 'fast-xml-parser'

/** What in a drawn text runs, holds pages, or leads elsewhere. As an image nothing of it would do anything; so nothing of it is seen either. */
const STRAYS = [
  /<script\b[\s\S]*?(?:<\/script\s*>|\/>)/gi,
  /<foreignObject\b[\s\S]*?<\/foreignObject\s*>/gi,
  /\son\w+\s*=\s*(["'])[\s\S]*?\1/gi,
  /\s(?:xlink:)?href\s*=\s*(["'])(?!#|data:image\/)[\s\S]*?\1/gi,
]

/** What is used by others is drawn as often as it is used: so many things are shown at most. */
const MOST_SHOWN = 100_000

/** A drawn text without what runs in it, and without links to elsewhere. Throws where it would be blown up by what it names. */
export function harmless(text: string): string {
  if (/<!ENTITY/i.test(text)) throw new Error('entities')
  return STRAYS.reduce((left, stray) => left.replace(stray, ''), text)
}

/**
 * A drawn text as a tree that is only looked through. What it says of looks is found as `said` attributes and `sheet` elements: as looks they would be
 * applied, which the page does not allow. Throws where it cannot be read.
 */
export function parsedText(text: string): Element {
  const looked = harmless(text)
    .replace(/<(\/?)style\b/gi, '<$1sheet')
    .replace(/(\s)style(\s*=\s*["'])/gi, '$1said$2')
  // What the browser cannot read it would answer with a page of its own.
  if (XMLValidator.validate(looked) !== true) throw new Error('no drawn text')
  const parsed = new DOMParser().parseFromString(looked, 'image/svg+xml')
  const root = parsed.documentElement
  if (root.localName !== 'svg' || parsed.querySelector('parsererror')) throw new Error('no drawn text')
  return root
}

export const hrefOf = (element: Element): string =>
  element.getAttribute('href') ?? element.getAttributeNS('http://www.w3.org/1999/xlink', 'href') ?? ''

/** The element of a text that a link (#name, or url(#name)) leads to. */
export function linked(root: Element, link: string): Element | null {
  const id = /^\s*(?:url\(\s*["']?)?#([^"')]+)/.exec(link)?.[1]
  return id === undefined ? null : root.querySelector(`[id="${CSS.escape(id)}"]`)
}

/** Whether more is drawn than can be shown, everything counted as often as it is used; also what uses itself. */
export function isTooMuch(root: Element, most = MOST_SHOWN): boolean {
  const counted = new Map<Element, number>()
  const under = new Set<Element>()
  const count = (element: Element): number => {
    const known = counted.get(element)
    if (known !== undefined) return known
    if (under.has(element)) return Infinity
    under.add(element)
    const used = element.localName === 'use' ? linked(root, hrefOf(element)) : null
    let sum = 1 + (used ? count(used) : 0)
    for (const child of element.children) sum += count(child)
    under.delete(element)
    counted.set(element, sum)
    return sum
  }
  return count(root) > most
}
