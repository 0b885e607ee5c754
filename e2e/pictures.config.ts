import { defineConfig } from '@playwright/test';
import config from './playwright.config.ts';

/** Takes the pictures of docs/screenshots anew: npm run pictures [-- -g name]. */
export default defineConfig({ ...config, testDir: 'pictures', reporter: [['list']] });
