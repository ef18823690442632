/** Whether another try may go better: nobody answered, or the server is not well or has too much to do. */
export const mayPass = (status: number) => [0, 408, 425, 429].includes(status) || status >= 500

/** How long to wait before the next try, in milliseconds, after so many that failed in a row: longer each time, up to five seconds. */
export const pauseAfter = (failures: number) => Math.min(5000, 300 * 2 ** failures)
