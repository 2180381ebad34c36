// Real processes on a machine that is short of time: there, as in the browser, a test gets a second try, and what
// passed only then is named at the end.
if (process.env.CI) jest.retryTimes(1, { logErrorsBeforeRetry: true });
