package org.vastporch.server.start;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.UnknownHostException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.stream.Stream;
import org.flywaydb.core.Flyway;
import org.flywaydb.core.api.MigrationVersion;
import org.springframework.boot.flyway.autoconfigure.FlywayMigrationStrategy;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.util.FileSystemUtils;

/**
 * What has to be so before the server starts: its port is free, its data folder is there for it alone, and the database
 * is not of a newer Vast Porch.
 */
@Configuration
public class Doors {

    /** @throws StartFault if the server could not listen there */
    public static void checkPort(String listen, int port) {
        if (port < 0 || port > 65_535) throw new StartFault("A port is a number from 1 to 65535, not " + port + ".");
        InetAddress address;
        try {
            address = InetAddress.getByName(listen);
        } catch (UnknownHostException e) {
            throw new StartFault("\"" + listen
                    + "\" is no address of this machine. Use --listen 0.0.0.0 for all of them, "
                    + "or leave it out for this machine alone.");
        }
        try (ServerSocket door = new ServerSocket()) {
            door.setReuseAddress(true);
            door.bind(new InetSocketAddress(address, port));
        } catch (IOException e) {
            throw new StartFault("Port " + port + " on " + listen
                    + " is taken by another program, or is not for you to use. Choose another one with "
                    + "--port, such as --port "
                    + (port < 65_000 ? port + 100 : 8_080) + ".");
        }
    }

    /** @throws StartFault if the server cannot write there, or another one does */
    public static void checkData(Path data) {
        Path folder = data.toAbsolutePath().normalize();
        try {
            Files.createDirectories(folder);
            Files.delete(Files.createTempFile(folder, "may", "write"));
        } catch (IOException e) {
            throw new StartFault("The data folder " + folder
                    + " cannot be written to. Give yourself the right to, or choose another one with --data.");
        }
        Path database = folder.resolve("porch.mv.db");
        if (!Files.exists(database)) return;
        try (FileChannel file = FileChannel.open(database, StandardOpenOption.READ, StandardOpenOption.WRITE);
                FileLock lock = file.tryLock()) {
            if (lock == null) throw inUse(folder);
        } catch (OverlappingFileLockException e) {
            throw inUse(folder);
        } catch (IOException e) {
            throw new StartFault(
                    "The database " + database + " cannot be opened. Give yourself the right to read and write it.");
        }
    }

    /** Stands in the folder of a school that is made up, and may be emptied. */
    private static final String MADE_UP = "made-up-school";

    /** Notes of a data folder in which nothing is yet that a made-up school lies there. */
    public static void noteMadeUp(Path data) {
        try {
            if (Files.notExists(data.resolve("porch.mv.db")))
                Files.writeString(data.resolve(MADE_UP), "This folder may be emptied: porch demo --fresh does so.\n");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Empties a data folder that nobody uses.
     *
     * @throws StartFault if it holds anything else than a made-up school
     */
    public static void empty(Path data) {
        Path folder = data.toAbsolutePath().normalize();
        try {
            if (Files.notExists(folder) || Files.exists(folder.resolve(MADE_UP)) || isEmpty(folder))
                FileSystemUtils.deleteRecursively(folder);
            else
                throw new StartFault("The folder " + folder
                        + " holds something else than a made-up school, so it is not emptied. "
                        + "Choose another one with --data.");
        } catch (IOException e) {
            throw new StartFault("The data folder " + folder
                    + " cannot be emptied. Give yourself the right to, or choose another one with --data.");
        }
    }

    private static boolean isEmpty(Path folder) throws IOException {
        try (Stream<Path> inside = Files.list(folder)) {
            return inside.findAny().isEmpty();
        }
    }

    private static StartFault inUse(Path folder) {
        return new StartFault("The data folder " + folder
                + " is in use: another Vast Porch runs with it. Stop that one, or choose another folder with --data.");
    }

    /** An older program would not know what a newer one wrote, and might lose it. */
    @Bean
    FlywayMigrationStrategy noNewerDatabase() {
        return flyway -> {
            refuseNewer(flyway);
            flyway.migrate();
        };
    }

    static void refuseNewer(Flyway flyway) {
        MigrationVersion known = flyway.info().all().length == 0 ? MigrationVersion.EMPTY : newest(flyway);
        for (var applied : flyway.info().applied())
            if (applied.getVersion() != null && applied.getVersion().isNewerThan(known.getVersion()))
                throw new StartFault("This database was written by a newer Vast Porch (step " + applied.getVersion()
                        + "; this one knows steps up to " + known
                        + "). Start it with that one, or restore a back-up from before.");
    }

    /** The newest step that this program has. */
    private static MigrationVersion newest(Flyway flyway) {
        MigrationVersion newest = MigrationVersion.EMPTY;
        for (var step : flyway.info().all())
            if (step.getVersion() != null
                    && step.getState().isResolved()
                    && step.getVersion().compareTo(newest) > 0) newest = step.getVersion();
        return newest;
    }
}
