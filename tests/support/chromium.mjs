import { chromium } from '@playwright/test';

/**
 * Debian's browser, as root. What Ctrl-C ends is for whoever started everything: the package's own handling would leave at once,
 * and leave the other programs behind.
 */
export const openChromium = () =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-dev-shm-usage', '--disable-background-networking'],
    handleSIGINT: false,
    handleSIGTERM: false,
    handleSIGHUP: false,
  });
