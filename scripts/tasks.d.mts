import type { Page } from 'playwright'

export function longestTask(page: Page, act: () => Promise<void>): Promise<{ workMs: number; passedMs: number }>
