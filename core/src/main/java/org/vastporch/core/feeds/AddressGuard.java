package org.vastporch.core.feeds;

import java.util.Set;
import java.util.regex.Pattern;

/**
 * Which places of the net may be asked on behalf of somebody: those of the open internet, by the registries of special
 * addresses (RFC 6890 and its successors), and ports where pages usually stand.
 */
public final class AddressGuard {

    /**
     * From 1024 up, where databases, caches, queues and tools that steer machines usually listen: none of them answers
     * with a page, and some obey whoever can reach them.
     */
    public static final Set<Integer> TOOLS = Set.of(
            1433, 1521, 1883, 2049, 2181, 2375, 2376, 2379, 2380, 3128, 3260, 3306, 3389, 4369, 5432, 5433, 5601, 5671,
            5672, 5900, 5984, 5985, 5986, 6000, 6379, 6443, 7000, 7001, 7077, 8086, 8500, 8529, 8983, 9042, 9092, 9160,
            9200, 9300, 9418, 9990, 10250, 10255, 11211, 15672, 25672, 26257, 27017, 27018, 27019, 50070, 61616);

    private static final Pattern NUMBERS = Pattern.compile("(?i)(.*\\.)?(0x[0-9a-f]*|[0-9]+)\\.?");
    private static final Pattern QUAD = Pattern.compile("(0|[1-9][0-9]{0,2})(\\.(0|[1-9][0-9]{0,2})){3}");

    private AddressGuard() {}

    /** Tells whether a page may be asked for at a port. */
    public static boolean isOpen(int port) {
        return port == 80 || port == 443 || port >= 1024 && port <= 65_535 && !TOOLS.contains(port);
    }

    /**
     * Tells whether a name of a host says one thing only. Numbers that are no plain four are read as different
     * addresses by different programs: octal, hexadecimal, shortened.
     */
    public static boolean isPlain(String host) {
        return !NUMBERS.matcher(host).matches() || QUAD.matcher(host).matches();
    }

    /**
     * Tells whether an address lies in the open internet.
     *
     * @param address its four or sixteen bytes
     */
    public static boolean isPublic(byte[] address) {
        return address.length == 4 ? isPublicOld(address) : isPublicNew(address);
    }

    private static boolean isPublicOld(byte[] b) {
        int first = b[0] & 0xff;
        int second = b[1] & 0xff;
        int third = b[2] & 0xff;
        return switch (first) {
            case 0, 10, 127 -> false;
            case 100 -> second < 64 || second > 127;
            case 169 -> second != 254;
            case 172 -> second < 16 || second > 31;
            case 192 ->
                second != 168
                        && !(second == 0 && (third == 0 || third == 2))
                        && !(second == 31 && third == 196)
                        && !(second == 52 && third == 193)
                        && !(second == 88 && third == 99)
                        && !(second == 175 && third == 48);
            case 198 -> second != 18 && second != 19 && !(second == 51 && third == 100);
            case 203 -> !(second == 0 && third == 113);
            default -> first < 224;
        };
    }

    /** Only 2000::/3 is given out; in it lie ranges that carry other addresses, or are for documents and tests. */
    private static boolean isPublicNew(byte[] b) {
        int first = (b[0] & 0xff) << 8 | b[1] & 0xff;
        int second = (b[2] & 0xff) << 8 | b[3] & 0xff;
        if (first < 0x2000 || first > 0x3fff) return false;
        if (first == 0x2001) return second >= 0x0200 && second != 0x0db8;
        if (first == 0x2002) return false;
        return !(first == 0x3fff && second < 0x1000);
    }
}
