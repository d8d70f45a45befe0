/** Debian's Chromium without a window, which takes a quarter less time than the whole one. */
export const executablePath = '/usr/bin/chromium-headless-shell';
