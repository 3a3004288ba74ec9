package org.vastporch.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** The figures of one run: a name, a value with its unit, and what it is held against. */
final class Figures {

    record Figure(String name, double value, String unit, double ratio, String against) {
        String line() {
            String held = ratio > 0
                    ? String.format(Locale.ROOT, "   %.2f times %s", ratio, against)
                    : against.isEmpty() ? "" : "   " + against;
            return String.format(Locale.ROOT, "%-10s %10.2f %-12s%s", name, value, unit, held);
        }

        String json() {
            return String.format(
                    Locale.ROOT,
                    "{\"name\":\"%s\",\"value\":%.4f,\"unit\":\"%s\",\"ratio\":%.4f,\"against\":\"%s\"}",
                    name,
                    value,
                    unit,
                    ratio,
                    against);
        }
    }

    /** Something that is timed. */
    interface Work {
        void run() throws Exception;
    }

    private final List<Figure> figures = new ArrayList<>();

    void add(String name, double value, String unit, double ratio, String against) {
        Figure figure = new Figure(name, value, unit, ratio, against);
        figures.add(figure);
        System.out.println(figure.line());
    }

    String json() {
        return "[" + String.join(",\n", figures.stream().map(Figure::json).toList()) + "]\n";
    }

    /** The median time of some runs in milliseconds, after as many runs again to warm up. */
    static double median(int runs, Work work) throws Exception {
        for (int i = 0; i < runs; i++) work.run();
        double[] times = new double[runs];
        for (int i = 0; i < runs; i++) {
            long begin = System.nanoTime();
            work.run();
            times[i] = (System.nanoTime() - begin) / 1e6;
        }
        return median(times);
    }

    /**
     * How much longer one work takes than another: they take turns, so that whatever else the machine does meets both.
     *
     * @return the median of the first in milliseconds, and its ratio to the median of the second
     */
    static double[] against(int runs, Work work, Work other) throws Exception {
        double[] times = new double[runs];
        double[] others = new double[runs];
        for (int i = -runs; i < runs; i++) {
            long begin = System.nanoTime();
            work.run();
            long between = System.nanoTime();
            other.run();
            if (i < 0) continue;
            times[i] = (between - begin) / 1e6;
            others[i] = (System.nanoTime() - between) / 1e6;
        }
        return new double[] {median(times), median(times) / median(others)};
    }

    static double median(double[] times) {
        return percentile(times, 0.5);
    }

    /** @param share such as 0.95 for the time within which 95 of 100 were done */
    static double percentile(double[] times, double share) {
        double[] sorted = times.clone();
        Arrays.sort(sorted);
        return sorted.length == 0 ? 0 : sorted[(int) Math.min(sorted.length - 1, Math.floor(sorted.length * share))];
    }
}
