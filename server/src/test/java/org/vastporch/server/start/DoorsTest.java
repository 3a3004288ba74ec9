package org.vastporch.server.start;

import static org.junit.jupiter.api.Assertions.*;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.flywaydb.core.Flyway;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;

/** What keeps the server from starting is a sentence with what to do. */
class DoorsTest {

    private static String told(Runnable check) {
        return assertThrows(StartFault.class, check::run).getMessage();
    }

    @Test
    void aPortThatIsTakenOrNone() throws IOException {
        try (ServerSocket other = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            String sentence = told(() -> Doors.checkPort("127.0.0.1", other.getLocalPort()));
            assertTrue(sentence.startsWith("Port " + other.getLocalPort() + " on 127.0.0.1 is taken"), sentence);
            assertTrue(
                    sentence.contains("--port " + (other.getLocalPort() < 65_000 ? other.getLocalPort() + 100 : 8080)),
                    "it says what to do");
        }
        Doors.checkPort("127.0.0.1", 0);
        assertTrue(told(() -> Doors.checkPort("127.0.0.1", 70_000)).contains("from 1 to 65535"));
        assertTrue(told(() -> Doors.checkPort("no.such.host.invalid", 0)).contains("--listen 0.0.0.0"));
    }

    @Test
    void aFolderThatIsAFileOrInUse(@TempDir Path folder) throws IOException {
        Doors.checkData(folder.resolve("new/school"));
        assertTrue(Files.isDirectory(folder.resolve("new/school")), "a folder that is not there yet is made");
        Path file = Files.writeString(folder.resolve("file"), "x");
        assertTrue(told(() -> Doors.checkData(file)).contains("cannot be written to"));
        Path database = Files.writeString(folder.resolve("porch.mv.db"), "x");
        Doors.checkData(folder);
        try (FileChannel other = FileChannel.open(database, StandardOpenOption.WRITE);
                FileLock lock = other.lock()) {
            assertTrue(lock.isValid());
            assertTrue(told(() -> Doors.checkData(folder)).contains("is in use: another Vast Porch runs with it"));
        }
        Doors.checkData(folder);
    }

    /** What is asked to be emptied may be a real school, or somebody's home. */
    @Test
    void onlyAMadeUpSchoolIsEmptied(@TempDir Path folder) throws IOException {
        Path demo = Files.createDirectories(folder.resolve("demo"));
        Doors.noteMadeUp(demo);
        Files.writeString(demo.resolve("porch.mv.db"), "x");
        Doors.empty(demo);
        assertFalse(Files.exists(demo));
        Doors.empty(demo);
        Path school = Files.createDirectories(folder.resolve("school"));
        Path database = Files.writeString(school.resolve("porch.mv.db"), "x");
        Doors.noteMadeUp(school);
        assertTrue(told(() -> Doors.empty(school)).contains("holds something else than a made-up school"));
        assertTrue(Files.exists(database));
    }

    @Test
    void aDatabaseOfANewerVersionIsLeftAlone() {
        JdbcDataSource database = new JdbcDataSource();
        database.setURL("jdbc:h2:mem:newer;DB_CLOSE_DELAY=-1");
        Flyway flyway = Flyway.configure().dataSource(database).load();
        Doors.refuseNewer(flyway);
        flyway.migrate();
        Doors.refuseNewer(flyway);
        JdbcClient jdbc = JdbcClient.create(database);
        jdbc.sql("""
            insert into "flyway_schema_history" ("installed_rank", "version", "description", "type", "script",
                   "checksum", "installed_by", "execution_time", "success")
            values (900, '900', 'from tomorrow', 'SQL', 'V900__from_tomorrow.sql', 1, 'porch', 1, true)""").update();
        assertTrue(told(() -> Doors.refuseNewer(flyway))
                .startsWith("This database was written by a newer Vast Porch (step 900;"));
    }
}
