import { isMap, isScalar, isSeq } from 'yaml';
import { parseYaml } from '../yaml/parse.js';
import type { ReadProblem } from '../../text/problem.js';

/** What a `pnpm-workspace.yaml` says of the packages of a workspace (pnpm.io, "pnpm-workspace.yaml"). */
export interface PnpmWorkspace {
  /** Patterns of folders, those to leave out after a `!`. */
  packages: string[];
  /** Whether packages of the workspace may take the place of those of a registry; the default differs by version. */
  linksPackages: boolean;
  problems: ReadProblem[];
}

const maxLength = 500_000;

/** Reads a `pnpm-workspace.yaml`. What is no YAML becomes a problem. */
export function readPnpmWorkspace(text: string): PnpmWorkspace {
  const { document, problems } = parseYaml(text, maxLength);
  const root = document.contents;
  const list = isMap(root) ? root.get('packages', true) : undefined;
  const links: unknown = isMap(root) ? root.get('linkWorkspacePackages', true) : undefined;
  return {
    packages: isSeq(list)
      ? list.items.flatMap((item) => (isScalar(item) && typeof item.value === 'string' ? [item.value] : []))
      : [],
    linksPackages: !(isScalar(links) && links.value === false),
    problems: problems.slice(0, 3),
  };
}
