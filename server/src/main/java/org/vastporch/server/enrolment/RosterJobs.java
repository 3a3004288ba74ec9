package org.vastporch.server.enrolment;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import org.vastporch.core.access.Act;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Optionally;
import org.vastporch.server.http.Problem;

/**
 * Imports that take a while: they go on when the page is left, say how far they are, and can be stopped until the rows
 * are written. All rows are written at once at the end, so a stopped or killed import has done nothing.
 */
@Service
public class RosterJobs {

    /** @param state "running", "done", "stopped" or "failed" */
    public record Import(
            String id,
            int done,
            int total,
            String state,
            @Optionally RosterService.Imported result,
            @Optionally String problem) {}

    private static final Logger log = LoggerFactory.getLogger(RosterJobs.class);
    private static final int KEPT = 200;

    private static final class Job {
        final long classId;
        final int total;
        volatile int done;
        volatile boolean stop;
        volatile String state = "running";
        volatile RosterService.@Nullable Imported result;
        volatile @Nullable String problem;

        Job(long classId, int total) {
            this.classId = classId;
            this.total = total;
        }
    }

    private final RosterService rosters;
    private final AccessService access;
    private final ExecutorService worker = Executors.newSingleThreadExecutor(task -> {
        Thread thread = new Thread(task, "roster-import");
        thread.setDaemon(true);
        return thread;
    });
    private final Map<String, Job> jobs = new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Job> eldest) {
            return size() > KEPT;
        }
    };

    RosterJobs(RosterService rosters, AccessService access) {
        this.rosters = rosters;
        this.access = access;
    }

    public Import start(Viewer viewer, long classId, List<RosterService.RowView> rows) {
        access.require(viewer, Act.MANAGE_CLASS, classId);
        Job job = new Job(classId, rows.size());
        String id = UUID.randomUUID().toString();
        synchronized (jobs) {
            jobs.put(id, job);
        }
        worker.submit(() -> run(job, viewer, rows));
        return view(id, job);
    }

    private void run(Job job, Viewer viewer, List<RosterService.RowView> rows) {
        try {
            job.result = rosters.importRows(viewer, job.classId, rows, done -> {
                if (job.stop) throw new CancellationException();
                job.done = Math.max(job.done, done);
            });
            job.done = job.total;
            job.state = "done";
        } catch (Problem e) {
            job.problem = e.getMessage();
            job.state = "failed";
        } catch (RuntimeException e) {
            if (!job.stop) log.error("An import failed", e);
            job.problem = "Nothing was enrolled. Please try once more.";
            job.state = job.stop ? "stopped" : "failed";
        }
    }

    public Import get(Viewer viewer, String id) {
        return view(id, require(viewer, id));
    }

    public void stop(Viewer viewer, String id) {
        require(viewer, id).stop = true;
    }

    private Job require(Viewer viewer, String id) {
        Job job;
        synchronized (jobs) {
            job = jobs.get(id);
        }
        if (job == null) throw Problem.missing();
        access.require(viewer, Act.MANAGE_CLASS, job.classId);
        return job;
    }

    private static Import view(String id, Job job) {
        return new Import(id, job.done, job.total, job.state, job.result, job.problem);
    }
}
