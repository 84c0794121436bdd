/**
 * A laboratory afternoon: who does what at which bench and when, so that no instrument is needed twice.
 * {@link eagerneedle.core.day.Afternoon} is what is asked for, {@link eagerneedle.core.day.Rota} what comes of it.
 */
@NullMarked
package eagerneedle.core.day;

import org.jspecify.annotations.NullMarked;
