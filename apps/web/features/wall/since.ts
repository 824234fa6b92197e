const MINUTE_MS = 60_000;

/** How long ago something was, as a wall says it. */
export function sinceWords(fromIso: string, nowIso: string): string {
  const minutes = Math.floor((Date.parse(nowIso) - Date.parse(fromIso)) / MINUTE_MS);
  if (minutes < 1) return "just now";
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}
