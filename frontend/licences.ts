import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Plugin } from 'vite'

interface Locked {
  version: string
  license?: string
}

/** A file with the licences of the packages that become part of the interface, written when it is built. */
export function licences(folder: string): Plugin {
  return {
    name: 'licences',
    generateBundle() {
      const inside = new Set([...this.getModuleIds()].flatMap((id) => packageOf(id) ?? []))
      const lock = JSON.parse(readFileSync(join(folder, 'package-lock.json'), 'utf8'))
      const shipped = Object.entries(lock.packages as Record<string, Locked>)
        .filter(([path]) => inside.has(path) && existsSync(join(folder, path, 'package.json')))
        .map(([path, p]) => ({
          name: path.split('node_modules/').at(-1)!,
          version: p.version,
          licence: p.license ?? 'see its text',
          text: textOf(join(folder, path)) || p.license || '',
        }))
      this.emitFile({ type: 'asset', fileName: 'licences.json', source: JSON.stringify(shipped) })
    },
  }
}

/** The folder of the package that a module is part of, from the folder of the interface. */
function packageOf(id: string): string | undefined {
  return /(node_modules\/(?:.*\/node_modules\/)?(?:@[^/]+\/)?[^/]+)\//.exec(id)?.[1]
}

function textOf(folder: string): string {
  return readdirSync(folder, { withFileTypes: true })
    .filter((entry) => /^(licen[cs]e|copying|notice)/i.test(entry.name))
    .flatMap((entry) => {
      const path = join(folder, entry.name)
      return entry.isDirectory() ? readdirSync(path).map((file) => join(path, file)) : [path]
    })
    .map((path) => readFileSync(path, 'utf8').trim())
    .join('\n\n—\n\n')
}
