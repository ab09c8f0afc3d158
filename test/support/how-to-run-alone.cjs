/** Tells how to run each test that has failed by itself. */
module.exports = class {
  onTestResult(test, { testResults }) {
    const path = test.path.slice(process.cwd().length + 1);
    for (const { fullName, status } of testResults)
      if (status === "failed") {
        const pattern = fullName.replace(/[.*+?^${}()|[\]\\]/g, "\\$&").replace(/'/g, "'\\''");
        process.stderr.write(`To see it alone: npm test -- ${path} -t '${pattern}'\n`);
      }
  }
};
