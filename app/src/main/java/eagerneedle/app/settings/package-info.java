/** What a person sets once and finds again. */
@NullMarked
package eagerneedle.app.settings;

import org.jspecify.annotations.NullMarked;
