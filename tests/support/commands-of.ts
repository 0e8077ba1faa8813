import { readFileSync } from 'node:fs'

/** What somebody is to type, as a manual has it between its backticks: commands, statements, settings and what to look for. */
const TYPED =
  /^(\.\/hallway|deploy\/(backup|as-hallway) |npm run|adduser|apt-get|cp|mv|systemctl|galera_new_cluster|CREATE|GRANT|HALLWAY_DATABASE_URL=|safe_to_bootstrap: )/

/** What other tests run, by how it begins: of the manual, the rest is run on machines of its own. */
export const RUN_ELSEWHERE = ['deploy/backup FOLDER', './hallway start', './hallway sizes', 'npm run endure']

export const commandsOf = (file: string): string[] =>
  [...readFileSync(file, 'utf8').matchAll(/`([^`\n]+)`/g)].flatMap(([, text = '']) => (TYPED.test(text) ? [text] : []))
