export function installPackages(): void;
export function installChromium(): void;
/** The path of the browser that is there. */
export function chromium(): string | undefined;
