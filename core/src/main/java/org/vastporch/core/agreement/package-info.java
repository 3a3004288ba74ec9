/**
 * How far two sides agree on the same papers, and who is severe.
 *
 * <p>{@link Agreement} compares the levels that two sides gave for one criterion: how often they are the same, which
 * side gives more, and the quadratic-weighted kappa with its interval. {@link Severity} says of each marker how far
 * they lie from all who read the same papers. Laws: nothing is said of fewer than five pairs; changing sides turns the
 * direction round and leaves all else; the same seed gives the same interval.
 */
package org.vastporch.core.agreement;
