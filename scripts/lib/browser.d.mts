import type { WebDriver } from 'selenium-webdriver';

export function openBrowser(options?: {
  width?: number;
  height?: number;
  flags?: readonly string[];
}): Promise<WebDriver>;
export function setViewport(browser: WebDriver, width: number, height: number): Promise<void>;
