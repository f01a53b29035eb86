/** The word that says: complete names of files here. */
export const files = ':files';

/**
 * What makes a shell complete the words of our commands, by its name. Each asks `syndexa complete` with the words up to
 * the cursor; it answers in lines, a word and what it is for, with a tabulator between.
 */
export const shells = {
  bash: `_syndexa() {
  local line
  COMPREPLY=()
  while IFS= read -r line; do
    if [[ $line == '${files}' ]]; then
      compopt -o default 2>/dev/null
      return
    fi
    COMPREPLY+=("\${line%%$'\t'*}")
  done < <(syndexa complete -- "\${COMP_WORDS[@]:1:COMP_CWORD}" 2>/dev/null)
}
complete -F _syndexa syndexa
`,
  zsh: `#compdef syndexa
_syndexa() {
  local line
  local -a found
  for line in "\${(@f)$(syndexa complete -- "\${(@)words[2,CURRENT]}" 2>/dev/null)}"; do
    if [[ $line == '${files}' ]]; then
      _files
      return
    fi
    [[ -n $line ]] && found+=("\${\${line%%$'\t'*}//:/\\:}:\${line#*$'\t'}")
  done
  _describe syndexa found
}
compdef _syndexa syndexa
`,
  fish: `function __syndexa_complete
  set -l current (commandline -ct)
  test -n "$current"; or set current ''
  set -l before (commandline -opc)
  set -l found (syndexa complete -- $before[2..-1] $current 2>/dev/null)
  if test "$found" = '${files}'
    __fish_complete_path $current
  else
    printf '%s\n' $found
  end
end
complete -c syndexa -f -a '(__syndexa_complete)'
`,
} as const;
