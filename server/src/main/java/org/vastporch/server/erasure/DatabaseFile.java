package org.vastporch.server.erasure;

import com.zaxxer.hikari.HikariDataSource;
import com.zaxxer.hikari.HikariPoolMXBean;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** The file in which everything is kept. */
@Component
public class DatabaseFile {

    private static final Logger log = LoggerFactory.getLogger(DatabaseFile.class);
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final HikariDataSource pool;

    DatabaseFile(HikariDataSource pool) {
        this.pool = pool;
    }

    /**
     * Writes the file anew with nothing in it but what is there: what was deleted stays in a database's file until its place is used
     * again. Everybody else waits for a moment. The new file takes the place of the old one at once, so that a kill leaves one of the two.
     * The caller holds no connection.
     */
    public synchronized void rewrite() {
        if (pool.getJdbcUrl().startsWith("jdbc:h2:mem:")) return;
        HikariPoolMXBean doors = pool.getHikariPoolMXBean();
        doors.suspendPool();
        try {
            waitUntilNobodyIsIn(doors);
            try (Connection connection = DriverManager.getConnection(pool.getJdbcUrl(), pool.getUsername(), pool.getPassword());
                 Statement statement = connection.createStatement()) {
                statement.execute("shutdown compact");
            }
        } catch (SQLException e) {
            log.error("The database file could not be written anew; it will be at the next erasure", e);
        } finally {
            doors.resumePool();
        }
    }

    private static void waitUntilNobodyIsIn(HikariPoolMXBean doors) {
        long end = System.nanoTime() + PATIENCE.toNanos();
        while (doors.getTotalConnections() > 0 && System.nanoTime() < end) {
            doors.softEvictConnections();
            LockSupport.parkNanos(5_000_000);
        }
    }
}
