package org.vastporch.server.media;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * A file on its way in. It lies on the disk and is never held whole in memory; closing throws it away.
 *
 * @param declared the type that its sender's browser gives it; empty for none
 */
public record Upload(Path file, String name, String declared, long size) implements AutoCloseable {

    InputStream open() throws IOException {
        return Files.newInputStream(file);
    }

    /** The SHA-256 of the content, under which it is kept. */
    String sha() throws IOException {
        try (DigestInputStream in = new DigestInputStream(open(), MessageDigest.getInstance("SHA-256"))) {
            in.transferTo(OutputStream.nullOutputStream());
            return HexFormat.of().formatHex(in.getMessageDigest().digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("Every JDK has SHA-256", e);
        }
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(file);
    }
}
