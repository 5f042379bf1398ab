import type { WebDriver } from 'selenium-webdriver';

export function openBrowser(size?: { width?: number; height?: number }): Promise<WebDriver>;
export function setViewport(browser: WebDriver, width: number, height: number): Promise<void>;
