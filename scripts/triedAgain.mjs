/** Tells why a test that passed had to be tried again: what fails now and then is found by that. */
export default class TriedAgain {
  /** @type {string[]} */
  told = [];

  /** @param {import('vitest/node').TestCase} test */
  onTestCaseResult(test) {
    const { state, errors } = test.result();
    if (state === 'passed' && errors?.length)
      this.told.push(
        `${test.module.relativeModuleId} > ${test.fullName}\n${errors.map((e) => e.message).join('\n')}`,
      );
  }

  onTestRunEnd() {
    for (const told of this.told) console.log(`\nPassed only when tried again: ${told}`);
  }
}
