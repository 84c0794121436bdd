/** Plan: what is to be found, with which instruments, and which uncertainty that will give. */
package eagerneedle.app.plan;
