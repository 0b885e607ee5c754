/** The browsers measured in. */
import { chromium, type Browser } from '@playwright/test';
import config from '../e2e/playwright.config.ts';

/** As the tests use it: a graphics card is emulated, for the 3D picture and for putting the page together. */
export const startBrowser = (): Promise<Browser> => chromium.launch(config.use!.launchOptions);

/**
 * For frames a second: the page is put together in plain memory, as browsers do where there is no graphics
 * card. Emulating one for that, even a page that only moves a square reaches 20 to 40 frames a second.
 */
export const startFrameBrowser = (): Promise<Browser> =>
  chromium.launch({
    ...config.use!.launchOptions,
    args: [...config.use!.launchOptions!.args!, '--disable-gpu-compositing'],
  });
