package org.vastporch.core.rubrics;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;

/**
 * An exact fraction in lowest terms. Points are never floating: thirds have no decimal, and a mark must not depend on
 * the order in which it is added up.
 *
 * @param d above 0
 */
public record Fraction(BigInteger n, BigInteger d) implements Comparable<Fraction> {

    public static final Fraction ZERO = new Fraction(BigInteger.ZERO, BigInteger.ONE);

    public Fraction {
        if (d.signum() <= 0) throw new IllegalArgumentException("A denominator is above 0, not " + d);
        BigInteger common = n.gcd(d);
        if (!common.equals(BigInteger.ONE)) {
            n = n.divide(common);
            d = d.divide(common);
        }
    }

    public static Fraction of(BigDecimal value) {
        return value.scale() <= 0
                ? new Fraction(value.toBigIntegerExact(), BigInteger.ONE)
                : new Fraction(value.unscaledValue(), BigInteger.TEN.pow(value.scale()));
    }

    public Fraction plus(Fraction other) {
        return new Fraction(n.multiply(other.d).add(other.n.multiply(d)), d.multiply(other.d));
    }

    public Fraction minus(Fraction other) {
        return new Fraction(n.multiply(other.d).subtract(other.n.multiply(d)), d.multiply(other.d));
    }

    public Fraction times(Fraction other) {
        return new Fraction(n.multiply(other.n), d.multiply(other.d));
    }

    /** @param other above 0 */
    public Fraction dividedBy(Fraction other) {
        return new Fraction(n.multiply(other.d), d.multiply(other.n));
    }

    public int signum() {
        return n.signum();
    }

    @Override
    public int compareTo(Fraction other) {
        return n.multiply(other.d).compareTo(other.n.multiply(d));
    }

    /** For show, rounded half up to so many places (0 or more). */
    public BigDecimal rounded(int places) {
        return new BigDecimal(n).divide(new BigDecimal(d), places, RoundingMode.HALF_UP);
    }
}
