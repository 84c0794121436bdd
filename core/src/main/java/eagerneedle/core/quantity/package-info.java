/**
 * Numbers that never travel alone: value, unit, standard uncertainty, degrees of freedom and lineage together.
 *
 * <p>{@link eagerneedle.core.quantity.Quantity} is the door. A quantity carries a sparse map from
 * {@linkplain eagerneedle.core.quantity.Leaf leaf influences} to signed contributions; arithmetic propagates that map
 * by exact derivatives, so that budgets, covariances and correlations follow without bookkeeping (JCGM 100:2008, clause
 * 5).
 */
@NullMarked
package eagerneedle.core.quantity;

import org.jspecify.annotations.NullMarked;
