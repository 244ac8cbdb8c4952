/**
 * A text as Markdown shows it: what would be a sign of Markdown, or a tag, stands as it was typed.
 * @param text one line or several
 * @returns the text with backslashes before what would be read as a sign
 * Reference: CommonMark 0.31.2, sections 2.4 (backslash escapes) and 2.5 (entities)
 */
export const markdownText = (text: string): string =>
  text
    .replaceAll(/[\\`*_[\]<>|~]/g, '\\$&')
    .replaceAll(/&(?=#?\w+;)/g, '\\&')
    .replaceAll(/^(\s*)(#|=|[+-](?=[\s-]|$))/gm, '$1\\$2')
    .replaceAll(/^(\s*\d+)([.)])(?=\s|$)/gm, '$1\\$2')
