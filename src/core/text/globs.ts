/** A pattern for paths: `**` goes across folders, `*` and `?` stay within one. Longer ones are cut, so none is slow. */
export function globPattern(pattern: string, flags = ''): RegExp {
  const source = pattern
    .slice(0, 200)
    .split(/(\*\*\/?|\*|\?)/)
    .map((part) => {
      if (part.startsWith('**')) return part === '**' ? '.*' : '(?:.*/)?';
      if (part === '*') return '[^/]*';
      return part === '?' ? '[^/]' : part.replace(/[.+^${}()|[\]\\]/g, '\\$&');
    })
    .join('');
  return new RegExp(`^${source}$`, flags);
}
