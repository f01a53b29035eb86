/** What says that the screen or the app is back: `focus`, `!paused`, `state == AppLifecycleState.resumed`. */
const isBack =
  /^!?\(?[\w.]*(focus(ed)?|pause(d)?|pauseStatus|mounted|active|animated)\)?$|(===?)\s*(AppLifecycleState\.resumed|\.active|(?<quote>['"])active\k<quote>)$/i;

/** Whether a condition only tests that an ad exists and is loaded, and that the screen is back. */
export function onlyAsks(text: string, names: readonly string[]): boolean {
  if (text.includes('||')) return false;
  const parts = text.split('&&').map((part) => part.trim());
  const ready = (part: string) => names.some((name) => part.includes(name));
  const ads = parts.filter(ready).map((part) => /^!?\(?([\w.]+?)[?!]*\.\w/.exec(part)?.[1]);
  return parts.every((part) => {
    if (isBack.test(part) || ads.includes(part)) return true;
    const rest = names.reduce((left, name) => left.replaceAll(name, ''), part);
    const asksForAd =
      ready(part) || /(==|!=)=?\s*(null|nil|undefined)|\bis (not )?null|\bis \{\s*\}/.test(part);
    return asksForAd && !/[A-Za-z_]\w*\s*(\(|[<>]|[+-])/.test(rest);
  });
}
