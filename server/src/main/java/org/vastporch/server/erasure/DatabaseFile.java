package org.vastporch.server.erasure;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.HikariPoolMXBean;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * The file in which everything is kept. What was deleted stays in a database's file until its place is used again;
 * writing the file anew leaves nothing in it but what is there. A note beside the file says that this is to be done, so
 * that neither a kill nor a busy hour forgets it.
 */
@Component
public class DatabaseFile {

    private static final Logger log = LoggerFactory.getLogger(DatabaseFile.class);
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final HikariDataSource pool;
    private final Path note;

    DatabaseFile(HikariDataSource pool, @Value("${vastporch.data:./data}") Path data) {
        this.pool = pool;
        this.note = data.resolve("rewrite.pending");
    }

    /** Notes that the file is to be written anew: called before the deleting is committed. */
    public void expectRewrite() {
        try {
            if (!Files.exists(note)) Files.createFile(note);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Writes the file anew if that was noted. Everybody else waits for a moment; the new file takes the place of the
     * old one at once, so that a kill leaves one of the two whole. While somebody does not come out in time it is put
     * off and tried again. The caller holds no connection.
     */
    @Scheduled(initialDelay = 30_000, fixedDelay = 60_000)
    public synchronized void rewrite() {
        if (!Files.exists(note)) return;
        HikariPoolMXBean doors = pool.getHikariPoolMXBean();
        doors.suspendPool();
        try {
            if (pool.getJdbcUrl().startsWith("jdbc:h2:mem:")) {
                Files.delete(note);
            } else if (isEmptySoon(doors)) {
                shutDownCompactly();
                Files.delete(note);
            } else {
                log.warn("The database is too busy to be written anew; it is tried again in a minute");
            }
        } catch (SQLException | IOException e) {
            log.error("The database file could not be written anew; it is tried again in a minute", e);
        } finally {
            doors.resumePool();
        }
    }

    /** The next connection opens the new file. */
    private void shutDownCompactly() throws SQLException {
        try (Connection connection =
                        DriverManager.getConnection(pool.getJdbcUrl(), pool.getUsername(), pool.getPassword());
                Statement statement = connection.createStatement()) {
            statement.execute("shutdown compact");
        }
    }

    private static boolean isEmptySoon(HikariPoolMXBean doors) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (doors.getTotalConnections() > 0) {
            if (System.nanoTime() > end) return false;
            doors.softEvictConnections();
            LockSupport.parkNanos(5_000_000);
        }
        return true;
    }
}
