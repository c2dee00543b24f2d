/**
 * What a chart says at a point: lines of text, of which a pair is a name and its value. It is made of elements and
 * not of markup, so a name is only ever words, and no style is written into the page.
 */
export function tip(...lines: (string | [name: string, value: string, after?: string])[]) {
  const box = document.createElement('div')
  for (const line of lines) {
    const row = box.appendChild(document.createElement('div'))
    if (typeof line === 'string') {
      row.textContent = line
      continue
    }
    const [name, value, after] = line
    const strong = document.createElement('b')
    strong.textContent = value
    row.append(name ? `${name}: ` : '', strong, after ?? '')
  }
  return box
}
