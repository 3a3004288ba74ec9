package org.vastporch.server.media;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;

/**
 * How often a JPEG goes over its points. A picture that is built up in passes is drawn whole for each of them when it
 * is read, and a small file can hold very many; so they are counted before it is read. The parts of the file are those
 * of ITU-T T.81, annex B.
 */
final class JpegPasses {

    private static final int START_OF_SCAN = 0xda;
    private static final int END_OF_IMAGE = 0xd9;

    private JpegPasses() {}

    /** The scans up to the end of the image or of the file; 0 if it is no JPEG. Takes time linear in the file. */
    static int count(InputStream file) throws IOException {
        InputStream in = new BufferedInputStream(file, 1 << 16);
        if (in.read() != 0xff || in.read() != 0xd8) return 0;
        int scans = 0;
        for (int b = in.read(); b >= 0; b = in.read()) {
            if (b != 0xff) continue;
            int marker = in.read();
            while (marker == 0xff) marker = in.read();
            if (marker < 0 || marker == END_OF_IMAGE) return scans;
            if (marker == START_OF_SCAN) scans++;
            if (hasLength(marker)) skip(in, length(in) - 2);
        }
        return scans;
    }

    /** All but a stuffed byte, the restarts and the two parts without content. */
    private static boolean hasLength(int marker) {
        return marker > 1 && (marker < 0xd0 || marker > 0xd9);
    }

    private static void skip(InputStream in, int bytes) throws IOException {
        for (int i = 0; i < bytes && in.read() >= 0; i++) {}
    }

    private static int length(InputStream in) throws IOException {
        return in.read() << 8 | in.read();
    }
}
