package org.vastporch.bench;

import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;

/** How much heap was taken at most since it was reset, with what a measurement itself holds. */
final class Peak {

    private Peak() {}

    static void reset() {
        System.gc();
        for (MemoryPoolMXBean pool : ManagementFactory.getMemoryPoolMXBeans()) pool.resetPeakUsage();
    }

    static double megabytes() {
        return ManagementFactory.getMemoryPoolMXBeans().stream()
                        .filter(pool -> pool.getType() == MemoryType.HEAP)
                        .mapToLong(pool -> pool.getPeakUsage().getUsed())
                        .sum()
                / 1e6;
    }
}
