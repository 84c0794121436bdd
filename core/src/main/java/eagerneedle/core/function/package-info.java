/**
 * The library of the formula language: the functions formulas may call, in groups by what they are about, and fits of
 * models written as formulas. {@link eagerneedle.core.function.Functions} is the table of them all.
 */
@NullMarked
package eagerneedle.core.function;

import org.jspecify.annotations.NullMarked;
