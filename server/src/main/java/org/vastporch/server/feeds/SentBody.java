package org.vastporch.server.feeds;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Locale;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import org.vastporch.server.feeds.SafeFetcher.FetchException;

/**
 * What a server sends: at most 5 MB on the wire and 10 MB once it is unpacked, and at most two large ones at a time,
 * whatever it says of their size.
 */
final class SentBody {

    static final int MOST_SENT = 5 * 1024 * 1024;
    static final int MOST_UNPACKED = 10 * 1024 * 1024;

    private static final int LARGE = 1024 * 1024;
    private static final Semaphore LARGE_ONES = new Semaphore(2);
    private static final int PATIENCE_SECONDS = 8;

    private SentBody() {}

    /** A limit was met, or something cannot be unpacked: what is said of it stands in its message. */
    static final class Refused extends IOException {
        final String code;

        private Refused(String code, String sentence) {
            super(sentence);
            this.code = code;
        }

        FetchException asFetch() {
            return new FetchException(code, getMessage());
        }
    }

    /** @param encoding how the server says to have packed it; empty for not at all */
    static byte[] read(InputStream sent, String encoding) throws IOException {
        InputStream limited = new Limited(sent);
        return switch (encoding.strip().toLowerCase(Locale.ROOT)) {
            case "", "identity" -> all(limited);
            case "gzip", "x-gzip" -> all(unpacked(limited));
            default -> throw unreadable();
        };
    }

    private static InputStream unpacked(InputStream sent) throws IOException {
        try {
            return new GZIPInputStream(sent, 16_384);
        } catch (ZipException | EOFException e) {
            throw unreadable();
        }
    }

    private static Refused unreadable() {
        return new Refused("packed", "The server packs this page in a way that cannot be unpacked.");
    }

    private static byte[] all(InputStream in) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] buffer = new byte[16_384];
        boolean large = false;
        try {
            for (int n = next(in, buffer); n >= 0; n = next(in, buffer)) {
                out.write(buffer, 0, n);
                if (out.size() > MOST_UNPACKED)
                    throw new Refused(
                            "too-large", "What stands at this address is larger than 10 MB and was not read.");
                if (out.size() > LARGE && !large) large = waitForRoom();
            }
            return out.toByteArray();
        } finally {
            if (large) LARGE_ONES.release();
        }
    }

    /** A packed answer that breaks off is worth what came of it, like one that is not packed. */
    private static int next(InputStream in, byte[] buffer) throws IOException {
        try {
            return in.read(buffer);
        } catch (EOFException e) {
            return -1;
        } catch (ZipException e) {
            throw unreadable();
        }
    }

    private static boolean waitForRoom() throws IOException {
        try {
            if (LARGE_ONES.tryAcquire(PATIENCE_SECONDS, TimeUnit.SECONDS)) return true;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        throw new Refused("busy", "Several very large pages are being read just now. Try again in a minute.");
    }

    /** Counts what comes over the wire. */
    private static final class Limited extends FilterInputStream {
        private int sent;

        Limited(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int one = super.read();
            if (one >= 0) count(1);
            return one;
        }

        @Override
        public int read(byte[] into, int from, int most) throws IOException {
            int n = super.read(into, from, most);
            if (n > 0) count(n);
            return n;
        }

        private void count(int n) throws IOException {
            sent += n;
            if (sent > MOST_SENT)
                throw new Refused("too-large", "What stands at this address is larger than 5 MB and was not read.");
        }
    }
}
