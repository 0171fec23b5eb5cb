/** Small choices that this browser keeps beside the jobs: how a place was left. Where storage is closed they hold until the page is left. */
const PREFIX = "iron-keel-";

export function kept(key: string): string | null {
  try {
    return localStorage.getItem(PREFIX + key);
  } catch {
    return null;
  }
}

export function keep(key: string, value: string): void {
  try {
    localStorage.setItem(PREFIX + key, value);
  } catch {
    // Storage closed.
  }
}
