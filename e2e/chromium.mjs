// Starts Debian's Chromium.
import { chromium } from 'playwright-core';

const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-dev-shm-usage',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

export const launch = () => chromium.launch({ executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args });
