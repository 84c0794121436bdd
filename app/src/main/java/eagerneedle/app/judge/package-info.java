/** Judge: results against references, shares of uncertainty, mistakes looked for. */
package eagerneedle.app.judge;
