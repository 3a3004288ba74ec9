package org.vastporch.bench;

import java.net.http.HttpClient;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.support.TransactionTemplate;
import org.vastporch.core.peers.GivingOut;
import org.vastporch.core.sameness.Answer;
import org.vastporch.core.sameness.Sameness;

/** Many eyes on papers: who reviews whose, which texts share passages, how far two sides agree. */
final class Eyes {

    private static final int TIMES = 9;
    private static final int AUTHORS = 2_000;
    private static final int EACH = 4;
    private static final int WORDS = 800;

    private final String address;
    private final Figures figures;
    private final JdbcTemplate jdbc;
    private final TransactionTemplate transaction;

    Eyes(String address, Figures figures, JdbcTemplate jdbc, TransactionTemplate transaction) {
        this.address = address;
        this.figures = figures;
        this.jdbc = jdbc;
        this.transaction = transaction;
    }

    /** Four reviews each for two thousand, in groups of five. */
    static void peers(Figures figures) {
        List<GivingOut.Author> authors = new ArrayList<>();
        for (long i = 0; i < AUTHORS; i++) authors.add(new GivingOut.Author(i, i / 5));
        GivingOut.Wish wish = new GivingOut.Wish(authors, EACH, Set.of(), Set.of(), Set.of());
        double took = median(() -> GivingOut.of(wish, 7));
        figures.add("peers", took, "ms", 0, "2000 papers given out, four reviews each");
    }

    /** Five hundred answers of 800 words, and ten times as many. */
    static void sameness(Figures figures) {
        List<Answer> few = answers(500);
        List<Answer> many = answers(5_000);
        double one = median(() -> Sameness.among(few, List.of()));
        figures.add("sameness", one, "ms", 0, "500 answers of 800 words");
        System.gc();
        Runtime runtime = Runtime.getRuntime();
        long before = runtime.totalMemory() - runtime.freeMemory();
        long begin = System.nanoTime();
        Sameness.Found found = Sameness.among(many, List.of());
        double all = (System.nanoTime() - begin) / 1e6;
        double megabytes = (runtime.totalMemory() - runtime.freeMemory() - before) / 1048576.0;
        figures.add("sameness", all, "ms", Math.log10(all / one), "5000 answers; the ratio is the exponent of growth");
        figures.add(
                "sameness",
                megabytes,
                "MB",
                0,
                "taken meanwhile, " + found.pairs().size() + " pairs found");
    }

    /** One in twenty shares 60 words with its neighbour. */
    private static List<Answer> answers(int n) {
        Random random = new Random(3);
        List<Answer> answers = new ArrayList<>();
        String shared = "";
        for (int i = 0; i < n; i++) {
            if (i % 20 == 0) shared = words(random, 60);
            String own = words(random, WORDS - 60);
            answers.add(new Answer(i, own + " " + (i % 20 < 2 ? shared : words(random, 60)), List.of()));
        }
        return answers;
    }

    private static String words(Random random, int n) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < n; i++)
            text.append("word")
                    .append((int) (6_000 * Math.pow(random.nextDouble(), 2)))
                    .append(' ');
        return text.toString();
    }

    /** The agreement page for 200 papers of one prompt that two have read. */
    void agreement() throws Exception {
        LargeSchool.OneClass in = new Marks(address, figures, jdbc, transaction).add();
        long prompt = jdbc.queryForObject("select min(id) from prompt where class_id = ?", Long.class, in.id());
        transaction.executeWithoutResult(status -> {
            jdbc.update("""
                    insert into review (prompt_id, student_id, reader_id, kind, begun_at, updated_at, finished_at, rev)
                    select prompt_id, student_id, 3, 'SECOND', current_timestamp, current_timestamp, current_timestamp, 4
                      from marking
                     where prompt_id = ?""", prompt);
            jdbc.update("""
                    insert into review_mark (review_id, criterion_id, points, remark)
                    select v.id, m.criterion_id, mod(v.id * 7 + m.points, 4), ''
                      from review v
                      join mark m on m.prompt_id = v.prompt_id and m.student_id = v.student_id
                     where v.prompt_id = ?""", prompt);
        });
        Person teacher = new Person(address, HttpClient.newHttpClient(), "quill");
        String page = "/api/classes/" + in.id() + "/agreement";
        double took = Marks.median(() -> teacher.get(page + "?prompt=" + prompt));
        figures.add("agreement", took, "ms", 0, "200 papers of one prompt, read twice");
        double all = Marks.median(() -> teacher.get(page));
        figures.add("agreement", all, "ms", all / took, "with all 8000 papers of the class looked through");
    }

    private static double median(Runnable step) {
        for (int i = 0; i < 3; i++) step.run();
        double[] times = new double[TIMES];
        for (int i = 0; i < TIMES; i++) {
            long begin = System.nanoTime();
            step.run();
            times[i] = (System.nanoTime() - begin) / 1e6;
        }
        return Figures.median(times);
    }
}
