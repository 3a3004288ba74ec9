package org.vastporch.server.search;

import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.apache.lucene.document.Document;
import org.apache.lucene.document.Field.Store;
import org.apache.lucene.document.NumericDocValuesField;
import org.apache.lucene.document.SortedDocValuesField;
import org.apache.lucene.document.StringField;
import org.apache.lucene.document.TextField;
import org.apache.lucene.index.IndexReader;
import org.apache.lucene.index.IndexWriter;
import org.apache.lucene.index.IndexWriterConfig;
import org.apache.lucene.index.SerialMergeScheduler;
import org.apache.lucene.index.Term;
import org.apache.lucene.index.TieredMergePolicy;
import org.apache.lucene.search.BooleanClause.Occur;
import org.apache.lucene.search.BooleanQuery;
import org.apache.lucene.search.BoostQuery;
import org.apache.lucene.search.ConstantScoreQuery;
import org.apache.lucene.search.FieldDoc;
import org.apache.lucene.search.IndexSearcher;
import org.apache.lucene.search.PrefixQuery;
import org.apache.lucene.search.Query;
import org.apache.lucene.search.ScoreDoc;
import org.apache.lucene.search.SearcherFactory;
import org.apache.lucene.search.SearcherManager;
import org.apache.lucene.search.Sort;
import org.apache.lucene.search.SortField;
import org.apache.lucene.search.TermQuery;
import org.apache.lucene.search.similarities.BooleanSimilarity;
import org.apache.lucene.store.ByteBuffersDirectory;
import org.apache.lucene.store.Directory;
import org.apache.lucene.store.FSDirectory;
import org.apache.lucene.util.BytesRef;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.vastporch.core.blogs.Audience;

/**
 * Which texts have which words: an index that is made anew at each start and kept beside the database. It holds no text
 * and decides nothing: what it finds are candidates, and only what the reader's scope takes in is ever shown.
 */
@Component
class SearchIndex {

    /**
     * What can be found.
     *
     * @param id the number of a post or comment, or that of a file
     * @param ownerId who wrote the post
     * @param audience how far the post reaches at most, before the ceilings
     */
    record Entry(
            String kind,
            String id,
            long postId,
            long classId,
            long authorId,
            long ownerId,
            Audience audience,
            Instant at,
            String title,
            String text) {
        String key() {
            return kind + id;
        }
    }

    /**
     * A place in the order of what is found: the better match first, of equals the newer. It depends on nothing but the
     * text itself.
     */
    record Place(float score, long at, String key) {}

    record Candidate(String kind, String id, long postId, Place place) {}

    /**
     * Where to look. All that its reader may read lies within, and of what lies within nearly all is readable.
     *
     * @param classes all texts of these classes
     * @param ownerId and what somebody wrote, wherever that is; 0 for nobody
     * @param wide and whatever reaches the whole school or further
     */
    record Field(Collection<Long> classes, long ownerId, boolean wide) {}

    private static final Sort ORDER = new Sort(
            SortField.FIELD_SCORE,
            new SortField("at", SortField.Type.LONG, true),
            new SortField("key", SortField.Type.STRING));

    private final Directory directory;
    private final IndexWriter writer;
    private final SearcherManager searchers;
    private volatile boolean complete;

    SearchIndex(@Value("${spring.datasource.url}") String database, @Value("${vastporch.data:./data}") Path data)
            throws IOException {
        directory = database.startsWith("jdbc:h2:mem:")
                ? new ByteBuffersDirectory()
                : FSDirectory.open(empty(data.resolve("search")));
        writer = new IndexWriter(directory, config());
        searchers = new SearcherManager(writer, new SearcherFactory() {
            @Override
            public IndexSearcher newSearcher(IndexReader reader, IndexReader before) {
                IndexSearcher searcher = new IndexSearcher(reader);
                searcher.setSimilarity(new BooleanSimilarity());
                return searcher;
            }
        });
    }

    /**
     * What a match is worth does not depend on how many other texts have the word: that would tell of texts that one
     * may not read. What is taken out leaves no word behind, however little it is; merging is done where it is asked
     * for, since one that runs aside would not be waited for.
     */
    private static IndexWriterConfig config() {
        return new IndexWriterConfig(Words.ANALYZER)
                .setOpenMode(IndexWriterConfig.OpenMode.CREATE)
                .setRAMBufferSizeMB(48)
                .setSimilarity(new BooleanSimilarity())
                .setMergePolicy(new TieredMergePolicy().setForceMergeDeletesPctAllowed(0))
                .setMergeScheduler(new SerialMergeScheduler());
    }

    private static Path empty(Path folder) throws IOException {
        if (Files.exists(folder))
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.delete(file);
            }
        return Files.createDirectories(folder);
    }

    /** Takes a text in, in place of what was known of it. */
    void put(Entry entry) {
        Document doc = document(entry);
        run(() -> writer.updateDocument(new Term("key", entry.key()), doc));
    }

    /** Takes in all texts that there are, in place of everything that was known. */
    void fill(Consumer<Consumer<Entry>> all) {
        complete = false;
        run(writer::deleteAll);
        all.accept(entry -> run(() -> writer.addDocument(document(entry))));
        refresh();
        complete = true;
    }

    /** Whether all texts have been taken in since the start. */
    boolean isComplete() {
        return complete;
    }

    private static Document document(Entry entry) {
        Document doc = new Document();
        doc.add(new StringField("key", entry.key(), Store.NO));
        doc.add(new SortedDocValuesField("key", new BytesRef(entry.key())));
        doc.add(new NumericDocValuesField("at", ChronoUnit.MICROS.between(Instant.EPOCH, entry.at())));
        doc.add(new StringField("owner", String.valueOf(entry.ownerId()), Store.NO));
        if (entry.audience().reaches(Audience.SCHOOL)) doc.add(new StringField("wide", "yes", Store.NO));
        doc.add(new StringField("kind", entry.kind(), Store.YES));
        doc.add(new StringField("id", entry.id(), Store.YES));
        doc.add(new StringField("post", String.valueOf(entry.postId()), Store.YES));
        doc.add(new StringField("class", String.valueOf(entry.classId()), Store.NO));
        doc.add(new StringField("author", String.valueOf(entry.authorId()), Store.NO));
        doc.add(new TextField("title", entry.title(), Store.NO));
        doc.add(new TextField("text", entry.text(), Store.NO));
        doc.add(new TextField("raw", entry.title() + "\n" + entry.text(), Store.NO));
        return doc;
    }

    void remove(String kind, String id) {
        run(() -> writer.deleteDocuments(new Term("key", kind + id)));
    }

    /** Takes out the files of a post, before those that it has now are put in. */
    void removeFiles(long postId) {
        Query files = new BooleanQuery.Builder()
                .add(is("kind", "file"), Occur.FILTER)
                .add(is("post", postId), Occur.FILTER)
                .build();
        run(() -> writer.deleteDocuments(files));
    }

    private static Query is(String field, Object value) {
        return new TermQuery(new Term(field, String.valueOf(value)));
    }

    /** Lets searches see what was put in since. */
    void refresh() {
        run(searchers::maybeRefreshBlocking);
    }

    /**
     * Takes out what a person wrote and all about some posts, so that no word of it is left in the files of the index.
     */
    void purge(long personId, Collection<Long> posts) {
        run(() -> {
            writer.deleteDocuments(new Term("author", String.valueOf(personId)));
            for (long post : posts) writer.deleteDocuments(new Term("post", String.valueOf(post)));
            writer.forceMergeDeletes();
            writer.commit();
            searchers.maybeRefreshBlocking();
            writer.deleteUnusedFiles();
        });
    }

    /**
     * Texts that have all the words, the best first; the last word may be the beginning of one. Those of some classes
     * come before others.
     *
     * @param kind post, comment or file; empty for all
     * @param after what comes after this place; null for the first
     */
    List<Candidate> find(List<Words.Word> words, String kind, Field field, @Nullable Place after, int most) {
        if (words.isEmpty()) return List.of();
        BooleanQuery.Builder all = new BooleanQuery.Builder().add(within(field), Occur.FILTER);
        for (int i = 0; i < words.size(); i++) all.add(either(words.get(i), i == words.size() - 1), Occur.MUST);
        if (!kind.isEmpty()) all.add(is("kind", kind), Occur.FILTER);
        for (long classId : field.classes())
            all.add(new BoostQuery(new ConstantScoreQuery(is("class", classId)), 20), Occur.SHOULD);
        try {
            IndexSearcher searcher = searchers.acquire();
            try {
                List<Candidate> candidates = new ArrayList<>();
                // Keys are of one text each: as the last of all, nothing of the same place comes behind it.
                int last = Math.max(1, searcher.getIndexReader().maxDoc()) - 1;
                FieldDoc from = after == null
                        ? null
                        : new FieldDoc(
                                last, Float.NaN, new Object[] {after.score(), after.at(), new BytesRef(after.key())});
                for (ScoreDoc found : searcher.searchAfter(from, all.build(), most, ORDER).scoreDocs) {
                    Document doc = searcher.storedFields().document(found.doc);
                    Object[] place = ((FieldDoc) found).fields;
                    candidates.add(new Candidate(
                            doc.get("kind"),
                            doc.get("id"),
                            Long.parseLong(doc.get("post")),
                            new Place((Float) place[0], (Long) place[1], ((BytesRef) place[2]).utf8ToString())));
                }
                return candidates;
            } finally {
                searchers.release(searcher);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Query within(Field field) {
        BooleanQuery.Builder any = new BooleanQuery.Builder();
        for (long classId : field.classes()) any.add(is("class", classId), Occur.SHOULD);
        if (field.ownerId() != 0) any.add(is("owner", field.ownerId()), Occur.SHOULD);
        if (field.wide()) any.add(is("wide", "yes"), Occur.SHOULD);
        return any.build();
    }

    private static Query either(Words.Word word, boolean begun) {
        BooleanQuery.Builder any = new BooleanQuery.Builder()
                .add(new BoostQuery(new TermQuery(new Term("title", word.stem())), 3), Occur.SHOULD)
                .add(new TermQuery(new Term("text", word.stem())), Occur.SHOULD);
        if (begun && word.folded().length() > 1) any.add(new PrefixQuery(new Term("raw", word.folded())), Occur.SHOULD);
        return any.build();
    }

    private interface Act {
        void run() throws IOException;
    }

    private static void run(Act act) {
        try {
            act.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @PreDestroy
    void close() throws IOException {
        searchers.close();
        writer.close();
        directory.close();
    }
}
