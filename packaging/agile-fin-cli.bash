# Completion for agile-fin-cli: what it can do, and the options of each, as the program itself lists them.
_agile_fin_cli() {
  local word="${COMP_WORDS[COMP_CWORD]}" say=("${COMP_WORDS[0]}") i
  for ((i = 1; i < COMP_CWORD && i <= 2; ++i)); do
    case "${COMP_WORDS[i]}" in
      -*) ;;
      *) if [ "$i" -eq 1 ] || [ "${COMP_WORDS[1]}" = log ]; then say+=("${COMP_WORDS[i]}"); fi ;;
    esac
  done
  local help
  help="$("${say[@]}" --help 2>/dev/null)"
  if [[ "$word" == -* ]]; then
    mapfile -t COMPREPLY < <(compgen -W "$(grep -oE -- '--[a-z-]+' <<<"$help" | sort -u)" -- "$word")
    return
  fi
  local commands
  commands="$(sed -n '/^Subcommands:/,$s/^  \([a-z-]\{1,\}\) .*/\1/p' <<<"$help")"
  if [ -n "$commands" ]; then
    mapfile -t COMPREPLY < <(compgen -W "$commands" -- "$word")
  else
    compopt -o default
    COMPREPLY=()
  fi
}
complete -F _agile_fin_cli agile-fin-cli
