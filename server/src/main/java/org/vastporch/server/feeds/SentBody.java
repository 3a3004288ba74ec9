package org.vastporch.server.feeds;

import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.Locale;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipException;
import org.vastporch.server.feeds.SafeFetcher.FetchException;

/** What a server sends, whatever it says of its size and kind, as far as the budget goes. */
final class SentBody {

    private SentBody() {}

    /** A limit was met, or something cannot be unpacked: what is said of it stands in its message. */
    static final class Refused extends IOException {
        final String code;

        Refused(String code, String sentence) {
            super(sentence);
            this.code = code;
        }

        FetchException asFetch() {
            return new FetchException(code, getMessage());
        }
    }

    /** @param encoding how the server says to have packed it; empty for not at all */
    static byte[] read(InputStream sent, String encoding, Budget budget) throws IOException {
        InputStream counted = new Counted(sent, budget);
        return switch (encoding.strip().toLowerCase(Locale.ROOT)) {
            case "", "identity" -> all(counted, budget);
            case "gzip", "x-gzip" -> all(unpacked(counted), budget);
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

    private static byte[] all(InputStream in, Budget budget) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] buffer = new byte[16_384];
        for (int n = next(in, buffer); n >= 0; n = next(in, buffer)) {
            budget.unpacked(n);
            out.write(buffer, 0, n);
        }
        return out.toByteArray();
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

    /** Counts what comes over the wire. */
    private static final class Counted extends FilterInputStream {
        private final Budget budget;

        Counted(InputStream in, Budget budget) {
            super(in);
            this.budget = budget;
        }

        @Override
        public int read() throws IOException {
            int one = super.read();
            if (one >= 0) budget.sent(1);
            return one;
        }

        @Override
        public int read(byte[] into, int from, int most) throws IOException {
            int n = super.read(into, from, most);
            if (n > 0) budget.sent(n);
            return n;
        }
    }
}
