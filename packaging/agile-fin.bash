# Completion for agile-fin: its options, and logs.
_agile_fin() {
  local word="${COMP_WORDS[COMP_CWORD]}"
  if [[ "$word" == -* ]]; then
    mapfile -t COMPREPLY < <(compgen -W "--demo --demo-folder --first-view --help --version" -- "$word")
  else
    compopt -o filenames
    mapfile -t COMPREPLY < <(compgen -d -- "$word"; compgen -f -X '!*.finlog' -- "$word")
  fi
}
complete -F _agile_fin agile-fin
