/**
 * What a class is given and hands in, as files: the list of students, the sealed key, forms to fill, and the hand-ins
 * that come back. What any of it means is not known here.
 */
@NullMarked
package eagerneedle.store.classroom;

import org.jspecify.annotations.NullMarked;
