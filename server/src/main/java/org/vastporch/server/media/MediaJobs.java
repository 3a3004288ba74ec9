package org.vastporch.server.media;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Throws away the pictures and files of posts whose time in the bin is over. What another post shows as well is kept once and stays. */
@Component
class MediaJobs {

    private final JdbcClient jdbc;

    MediaJobs(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
    void followTheBin() {
        String emptied = "select p.id from post p where p.emptied_at is not null";
        int gone = jdbc.sql("delete from picture where post_id in (" + emptied + ")").update() + jdbc.sql("delete from attachment where post_id in (" + emptied + ")").update();
        if (gone > 0) PictureTraces.dropUnused(jdbc);
    }
}
