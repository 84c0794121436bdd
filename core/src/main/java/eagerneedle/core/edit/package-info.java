/**
 * Changes to the text of a sheet: whatever the program writes into one is a patch, so that comments, order and layout
 * outside of it stay byte for byte. The door is {@link eagerneedle.core.edit.SheetText}.
 */
@NullMarked
package eagerneedle.core.edit;

import org.jspecify.annotations.NullMarked;
